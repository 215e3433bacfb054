// A rule over a layer's fields put together as a sentence; it stands below as text, which can be changed by hand.
import { say } from "../../shell/say.js";

const TEXTS = ["text", "code", "unique_id", "time"];
const DAYS = ["date", "date_time"];

/** @typedef {import("../../../types/border").Planning["layers"][0]["fields"][0]} Field */
/** @typedef {{id: string, label: import("../../shell/say.js").MessageKey, fits: (f: Field) => boolean, bare?: boolean, text: (name: string, value: string) => string}} Test */

/** @param {Field} f */
const isText = (f) => TEXTS.includes(f.type);
/** @param {Field} f */
const isNumber = (f) => f.type === "whole" || f.type === "decimal";
/** @param {Field} f */
const isDay = (f) => DAYS.includes(f.type);
/** A text within a rule. @param {string} s */
const quoted = (s) => `'${s.replaceAll("'", "''")}'`;

/** What can be asked of a field. @type {Test[]} */
const TESTS = [
  { id: "is", label: "desk.round.is", fits: (f) => isText(f) || isNumber(f), text: (n, v) => `${n} = ${v}` },
  { id: "least", label: "desk.round.atLeast", fits: isNumber, text: (n, v) => `${n} >= ${v}` },
  { id: "most", label: "desk.round.atMost", fits: isNumber, text: (n, v) => `${n} <= ${v}` },
  { id: "other", label: "desk.round.isNot", fits: (f) => isText(f) || isNumber(f), text: (n, v) => `${n} <> ${v}` },
  { id: "before", label: "desk.round.before", fits: isDay, text: (n, v) => `${n} < ${v}` },
  { id: "from", label: "desk.round.from", fits: isDay, text: (n, v) => `${n} >= ${v}` },
  { id: "has", label: "desk.round.contains", fits: (f) => f.type === "text", text: (n, v) => `${n} LIKE ${v}` },
  { id: "yes", label: "desk.round.isYes", fits: (f) => f.type === "yes_no", bare: true, text: (n) => `${n} = TRUE` },
  { id: "no", label: "desk.round.isNo", fits: (f) => f.type === "yes_no", bare: true, text: (n) => `${n} = FALSE` },
  { id: "empty", label: "desk.round.isEmpty", fits: () => true, bare: true, text: (n) => `${n} IS NULL` },
  { id: "filled", label: "desk.round.isFilled", fits: () => true, bare: true, text: (n) => `${n} IS NOT NULL` },
];

/** The tests that fit a field, with what people read. @param {Field} field @returns {[string, string][]} */
export const testsOf = (field) => TESTS.filter((t) => t.fits(field)).map((t) => [t.id, say(t.label)]);

/** Whether a test asks for no value. @param {string} test */
export const isBare = (test) => TESTS.find((t) => t.id === test)?.bare ?? false;

/** The rule as text; "" as long as something is missing. @param {Field} field @param {string} test @param {string} value */
export function ruleText(field, test, value) {
  const t = TESTS.find((x) => x.id === test);
  if (!t) return "";
  if (t.bare) return t.text(field.name, "");
  const v = value.trim();
  if (!v) return "";
  if (isDay(field)) return t.text(field.name, field.type === "date" ? `DATE('${v}')` : `TIMESTAMP('${v}T00:00:00Z')`);
  if (isNumber(field)) return Number.isFinite(Number(v)) ? t.text(field.name, v) : "";
  return t.text(field.name, quoted(test === "has" ? `%${v}%` : v));
}
