// Stored values as they are typed, and what a field says of itself.
import { say } from "../../shell/say.js";

/** A stored value as it is typed: texts, and lists of texts for many codes. */
export function asStood(value) {
  if (value === null || value === undefined) return "";
  if (Array.isArray(value)) return value.map(String);
  if (typeof value === "boolean") return value ? "yes" : "no";
  return String(value);
}

const labelOf = (f, code) => f.codes?.find((c) => c.code === code)?.label ?? code;

/** How a field fills that is left empty. */
function start(f) {
  if (f.start?.fixed !== undefined) return say("desk.value.begins", { value: labelOf(f, f.start.fixed) });
  return f.start?.formula === undefined ? "" : say("desk.value.workedOut");
}

/** What stands under a field that is empty so far: how it fills, or what it must be. */
export function about(f, isNew) {
  const facts = [
    isNew ? start(f) : "",
    f.nullable === false ? say("desk.value.needed") : "",
    f.unique ? say("desk.value.unique") : "",
    f.length ? say("desk.value.upTo", { n: f.length }) : "",
    f.hint ?? "",
  ];
  return facts.filter(Boolean).join(" · ");
}
