// Numbers, lengths, sizes and days for people, with their units, in the style of their browser.
import { say, style } from "./say.js";

/** @param {number} n @param {Intl.NumberFormatOptions} [options] */
export const number = (n, options) => new Intl.NumberFormat(/** @type {string[]} */ (style()), options).format(n);
/** @param {number} n @param {number} decimals */
export const fixed = (n, decimals) => number(n, { minimumFractionDigits: decimals, maximumFractionDigits: decimals });

/** A distance on the ground. @param {number} m */
export const metres = (m) => (m < 1000 ? say("unit.m", { n: number(Math.round(m)) }) : say("unit.km", { n: fixed(m / 1000, 1) }));
/** A measured length. @param {number} m */
export const lengthSaid = (m) => (m < 10_000 ? say("unit.m", { n: fixed(m, 1) }) : say("unit.km", { n: fixed(m / 1000, 3) }));
/** A measured area. @param {number} m2 */
export const areaSaid = (m2) => (m2 < 10_000 ? say("unit.m2", { n: fixed(m2, 0) }) : say("unit.ha", { n: fixed(m2 / 10_000, 2) }));

/** The size of a file. @param {number} n */
export function bytes(n) {
  if (n < 1e6) return say("unit.kB", { n: number(Math.max(1, Math.round(n / 1000))) });
  return n < 1e9 ? say("unit.MB", { n: fixed(n / 1e6, 1) }) : say("unit.GB", { n: fixed(n / 1e9, 1) });
}

/** A moment in the browser's own time. @param {string} iso */
export const when = (iso) => new Date(iso).toLocaleString(/** @type {string[]} */ (style()), { dateStyle: "medium", timeStyle: "short" });
/** A day; one without a time of day is the same day everywhere. @param {string} iso */
export const day = (iso) =>
  new Date(iso).toLocaleDateString(/** @type {string[]} */ (style()), {
    dateStyle: "medium",
    ...(iso.length === 10 && { timeZone: "UTC" }),
  });

/** A position in degrees. @param {number[]} at longitude and latitude */
export function degrees([x, y]) {
  return say("unit.position", {
    lat: `${fixed(Math.abs(y), 5)}° ${say(y < 0 ? "compass.south" : "compass.north")}`,
    lon: `${fixed(Math.abs(x), 5)}° ${say(x < 0 ? "compass.west" : "compass.east")}`,
  });
}
