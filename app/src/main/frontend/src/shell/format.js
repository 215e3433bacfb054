// Lengths, sizes and positions for people, with their units, in the style of their browser.
import { say } from "./say.js";
import { fixed, number } from "./styles.js";

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

/** A position in degrees. @param {number[]} at longitude and latitude */
export function degrees([x, y]) {
  return say("unit.position", {
    lat: `${fixed(Math.abs(y), 5)}° ${say(y < 0 ? "compass.south" : "compass.north")}`,
    lon: `${fixed(Math.abs(x), 5)}° ${say(x < 0 ? "compass.west" : "compass.east")}`,
  });
}
