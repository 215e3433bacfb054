// Numbers, days and moments in the style of the person's browser.

/** The browser's own, unless another is asked for. @type {readonly string[] | undefined} */
let asked;

/** Takes a style where there is no browser. @param {readonly string[] | undefined} languages */
export function useStyle(languages) {
  asked = languages;
  formats.clear();
}

/** Formats are dear to make and cheap to keep. @type {Map<string, any>} */
const formats = new Map();
/**
 * A format that was made before, or a new one.
 * @template T
 * @param {string} kind
 * @param {unknown} options
 * @param {() => T} make
 * @returns {T}
 */
export function kept(kind, options, make) {
  const key = kind + JSON.stringify(options ?? {});
  let format = formats.get(key);
  if (!format) formats.set(key, (format = make()));
  return format;
}

/** What the person chose for all pages, which the page carries. @param {"style" | "zone"} what @returns {string | undefined} */
const chosen = (what) => (typeof document === "undefined" ? undefined : document.documentElement?.dataset[what]);

const chosenStyle = () => {
  const tag = chosen("style");
  return tag ? [tag] : undefined;
};

/** The languages by whose style numbers and days are written. @returns {string[]} */
export const style = () =>
  /** @type {string[]} */ (asked ?? chosenStyle() ?? (typeof navigator === "undefined" ? undefined : navigator.languages));

/** @param {number} n @param {Intl.NumberFormatOptions} [options] */
export const number = (n, options) => kept("number", options, () => new Intl.NumberFormat(style(), options)).format(n);
/** @param {number} n @param {number} decimals */
export const fixed = (n, decimals) => number(n, { minimumFractionDigits: decimals, maximumFractionDigits: decimals });

/** A moment in the browser's own time, or in the zone that the person chose. @param {string} iso */
export const when = (iso) => new Date(iso).toLocaleString(style(), { dateStyle: "medium", timeStyle: "short", timeZone: chosen("zone") });
/** How far that time is from UTC: "UTC +01:00". @param {string} iso */
export function offsetOf(iso) {
  const parts = new Intl.DateTimeFormat("en", { timeZone: chosen("zone"), timeZoneName: "longOffset" }).formatToParts(new Date(iso));
  const name = parts.find((p) => p.type === "timeZoneName")?.value ?? "";
  return "UTC " + (name.replace("GMT", "").replace("-", "−") || "+00:00");
}

/** A day of the year that goes without saying. @param {string} iso */
export const shortDay = (iso) => new Date(iso).toLocaleDateString(style(), { month: "short", day: "numeric", timeZone: "UTC" });

/** A day; one without a time of day is the same day everywhere. @param {string} iso */
export const day = (iso) => {
  const zone = iso.length === 10 ? { timeZone: "UTC" } : {};
  return new Date(iso).toLocaleDateString(style(), { dateStyle: "medium", ...zone });
};
