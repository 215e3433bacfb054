// The kinds of questions by their names.
import { say } from "../../shell/say.js";

/** @type {[string, import("../../shell/say.js").MessageKey][]} */
const TYPES = [
  ["text", "desk.type.text"],
  ["long_text", "desk.type.longText"],
  ["whole", "desk.type.whole"],
  ["decimal", "desk.type.decimal"],
  ["counter", "desk.type.counter"],
  ["yes_no", "desk.type.yesNo"],
  ["choice", "desk.type.choice"],
  ["grade", "desk.type.grade"],
  ["choices", "desk.type.choices"],
  ["ranked", "desk.type.ranked"],
  ["date", "desk.type.date"],
  ["time", "desk.type.time"],
  ["date_time", "desk.type.dateTime"],
  ["duration", "desk.type.duration"],
  ["photo", "desk.type.photo"],
  ["read", "desk.type.read"],
];

/** @returns {[string, string][]} */
export const typesSaid = () => TYPES.map(([id, key]) => [id, say(key)]);
/** @param {string} id */
export function typeSaid(id) {
  const known = TYPES.find((t) => t[0] === id);
  return known ? say(known[1]) : id;
}
