// Numbers, days and moments in the style of the person's browser.

/** The browser's own, unless another is asked for. @type {readonly string[] | undefined} */
let asked;

/** Takes a style where there is no browser. @param {readonly string[] | undefined} languages */
export function useStyle(languages) {
  asked = languages;
}

/** The languages by whose style numbers and days are written. @returns {string[]} */
export const style = () => /** @type {string[]} */ (asked ?? (typeof navigator === "undefined" ? undefined : navigator.languages));

/** @param {number} n @param {Intl.NumberFormatOptions} [options] */
export const number = (n, options) => new Intl.NumberFormat(style(), options).format(n);
/** @param {number} n @param {number} decimals */
export const fixed = (n, decimals) => number(n, { minimumFractionDigits: decimals, maximumFractionDigits: decimals });

/** A moment in the browser's own time. @param {string} iso */
export const when = (iso) => new Date(iso).toLocaleString(style(), { dateStyle: "medium", timeStyle: "short" });
/** A day; one without a time of day is the same day everywhere. @param {string} iso */
export const day = (iso) => {
  const zone = iso.length === 10 ? { timeZone: "UTC" } : {};
  return new Date(iso).toLocaleDateString(style(), { dateStyle: "medium", ...zone });
};
