// The kinds of questions: their names, what each is for, and which things can be said of it.
import { say } from "../../shell/say.js";

/** @type {[string, import("../../shell/say.js").MessageKey, import("../../shell/say.js").MessageKey][]} */
const TYPES = [
  ["text", "questionType.text", "questionUse.text"],
  ["long_text", "questionType.long_text", "questionUse.long_text"],
  ["whole", "questionType.whole", "questionUse.whole"],
  ["decimal", "questionType.decimal", "questionUse.decimal"],
  ["counter", "questionType.counter", "questionUse.counter"],
  ["yes_no", "questionType.yes_no", "questionUse.yes_no"],
  ["choice", "questionType.choice", "questionUse.choice"],
  ["choices", "questionType.choices", "questionUse.choices"],
  ["ranked", "questionType.ranked", "questionUse.ranked"],
  ["grade", "questionType.grade", "questionUse.grade"],
  ["date", "questionType.date", "questionUse.date"],
  ["time", "questionType.time", "questionUse.time"],
  ["date_time", "questionType.date_time", "questionUse.date_time"],
  ["duration", "questionType.duration", "questionUse.duration"],
  ["point", "questionType.point", "questionUse.point"],
  ["line", "questionType.line", "questionUse.line"],
  ["area", "questionType.area", "questionUse.area"],
  ["photo", "questionType.photo", "questionUse.photo"],
  ["sketch", "questionType.sketch", "questionUse.sketch"],
  ["signature", "questionType.signature", "questionUse.signature"],
  ["sound", "questionType.sound", "questionUse.sound"],
  ["file", "questionType.file", "questionUse.file"],
  ["tag", "questionType.tag", "questionUse.tag"],
  ["link", "questionType.link", "questionUse.link"],
  ["read", "questionType.read", "questionUse.read"],
  ["picture", "questionType.picture", "questionUse.picture"],
];

/** Kinds that are answered with codes. */
export const CODED = ["choice", "choices", "ranked", "grade"];
/** Kinds that are answered with a number. */
export const MEASURED = ["whole", "decimal", "counter", "duration"];
/** Kinds of whose answer something is counted: characters, codes, pictures. */
export const COUNTED = ["text", "long_text", "choices", "ranked", "photo", "sketch", "sound", "file"];
/** Kinds that are answered with files. */
export const MEDIA = ["photo", "sketch", "signature", "sound", "file"];

/** The layouts by their words. @type {Record<string, import("../../shell/say.js").MessageKey>} */
export const WAYS = {
  "": "desk.form.wayUsual",
  buttons: "desk.form.wayButtons",
  list: "desk.form.wayList",
  "side by side": "desk.form.waySide",
  compact: "desk.form.wayCompact",
  bar: "desk.form.wayBar",
  stepper: "desk.form.wayStepper",
};

/** @returns {[string, string][]} */
export const typesSaid = () => TYPES.map(([id, key]) => [id, say(key)]);
/** @param {string} id */
export function typeSaid(id) {
  const known = TYPES.find((t) => t[0] === id);
  return known ? say(known[1]) : id;
}
/** What a kind is for. @param {string} id */
export function usesSaid(id) {
  const known = TYPES.find((t) => t[0] === id);
  return known ? say(known[2]) : "";
}
