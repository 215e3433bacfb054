// The kinds of questions by their names.
import { say } from "../../shell/say.js";

/** @type {[string, import("../../shell/say.js").MessageKey][]} */
const TYPES = [
  ["text", "questionType.text"],
  ["long_text", "questionType.long_text"],
  ["whole", "questionType.whole"],
  ["decimal", "questionType.decimal"],
  ["counter", "questionType.counter"],
  ["yes_no", "questionType.yes_no"],
  ["choice", "questionType.choice"],
  ["choices", "questionType.choices"],
  ["ranked", "questionType.ranked"],
  ["grade", "questionType.grade"],
  ["date", "questionType.date"],
  ["time", "questionType.time"],
  ["date_time", "questionType.date_time"],
  ["duration", "questionType.duration"],
  ["point", "questionType.point"],
  ["line", "questionType.line"],
  ["area", "questionType.area"],
  ["photo", "questionType.photo"],
  ["sketch", "questionType.sketch"],
  ["signature", "questionType.signature"],
  ["sound", "questionType.sound"],
  ["file", "questionType.file"],
  ["tag", "questionType.tag"],
  ["link", "questionType.link"],
  ["read", "questionType.read"],
  ["picture", "questionType.picture"],
];

/** @returns {[string, string][]} */
export const typesSaid = () => TYPES.map(([id, key]) => [id, say(key)]);
/** @param {string} id */
export function typeSaid(id) {
  const known = TYPES.find((t) => t[0] === id);
  return known ? say(known[1]) : id;
}
