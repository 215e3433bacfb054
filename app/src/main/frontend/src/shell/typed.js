// Boxes in which people type: what is typed is not touched while they do, and numbers have their browser's decimal sign.
import { noChange } from "lit-html";
import { Directive, directive } from "lit-html/directive.js";
import { kept, style } from "./styles.js";

/** Whether a text may be put into a box: not when somebody has typed in it since the last one was, and is in it still. */
export const mayPut = (box, last, active) => box !== active || box.value === last;

class Typed extends Directive {
  /** What was last put into the box; a box begins empty. */
  last = "";

  render(value) {
    return value;
  }

  update(part, [value]) {
    const box = part.element;
    if (!mayPut(box, this.last, document.activeElement)) return noChange;
    if (box.value !== value) box.value = value;
    this.last = box.value;
    return noChange;
  }
}

/** The text of a box, left alone while somebody is typing in it: `.value=${typed(text)}`. */
export const typed = directive(Typed);

/** The decimal sign of the person's browser. @returns {string} */
export function decimalSign() {
  const parts = kept("number", undefined, () => new Intl.NumberFormat(style())).formatToParts(0.5);
  return parts.find((p) => p.type === "decimal")?.value ?? ".";
}

/** A number as it stands in a box: no groups, the person's decimal sign. Text that is no number stays as it is. @param {unknown} value */
export function asTyped(value) {
  if (value === null || value === undefined) return "";
  return typeof value === "number" ? String(value).replace(".", decimalSign()) : String(value);
}

/** What was typed as a number, with a point; both signs are understood. @param {string} text */
export const plain = (text) => text.trim().replace(",", ".");
