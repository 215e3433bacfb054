// Lengths, sizes and positions for people, in the units of their project and the style of their browser.
import { say } from "./say.js";
import { UNITS } from "./states.js";
import { fixed, number } from "./styles.js";

// definitions as core's Units has them
const FOOT_M = 0.3048;
const MILE_M = 5280 * FOOT_M;
const ACRE_M2 = 43_560 * FOOT_M * FOOT_M;
/** Up to so many feet a distance is said in feet. */
const MOST_FEET = 2640;

let feet = false;

/** From now on lengths are said in these units. @param {string | undefined} units one of UNITS; undefined for metres */
export const sayLengthsIn = (units) => {
  feet = units === UNITS.FEET;
};
/** Whether lengths are said in feet. */
export const inFeet = () => feet;

/** A distance on the ground. @param {number} m */
export function metres(m) {
  if (feet)
    return m < MOST_FEET * FOOT_M ? say("unit.ft", { n: number(Math.round(m / FOOT_M)) }) : say("unit.mi", { n: fixed(m / MILE_M, 1) });
  return m < 1000 ? say("unit.m", { n: number(Math.round(m)) }) : say("unit.km", { n: fixed(m / 1000, 1) });
}
/** A measured length. @param {number} m */
export function lengthSaid(m) {
  if (feet) return m < 2 * MILE_M ? say("unit.ft", { n: fixed(m / FOOT_M, 1) }) : say("unit.mi", { n: fixed(m / MILE_M, 3) });
  return m < 10_000 ? say("unit.m", { n: fixed(m, 1) }) : say("unit.km", { n: fixed(m / 1000, 3) });
}
/** A measured area. @param {number} m2 */
export function areaSaid(m2) {
  if (feet) return m2 < ACRE_M2 ? say("unit.ft2", { n: fixed(m2 / FOOT_M ** 2, 0) }) : say("unit.acre", { n: fixed(m2 / ACRE_M2, 2) });
  return m2 < 10_000 ? say("unit.m2", { n: fixed(m2, 0) }) : say("unit.ha", { n: fixed(m2 / 10_000, 2) });
}

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
