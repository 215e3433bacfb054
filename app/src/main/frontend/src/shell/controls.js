// Controls of editors: each shows what the data say and tells what a person chose.
import { typed } from "./typed.js";
import { html, live, nothing } from "./view.js";

/** The options of a list. @param {readonly (readonly [string, string])[]} all @param {string} chosen */
export const options = (all, chosen) =>
  all.map(([value, label]) => html`<option value=${value} .selected=${live(value === chosen)}>${label}</option>`);

/**
 * A choice from a list, with its label before it.
 * @param {string} label
 * @param {string} value
 * @param {readonly (readonly [string, string])[]} all values with what people read
 * @param {(value: string) => void} put
 * @param {{id?: string, disabled?: boolean, mark?: string}} [more] `mark` is kept as data-mark
 */
export function choose(label, value, all, put, { id, disabled, mark } = {}) {
  return html`<label
    >${label}<select id=${id ?? nothing} data-mark=${mark ?? nothing} ?disabled=${disabled} @change=${(e) => put(e.target.value)}>
      ${options(all, value)}
    </select></label
  >`;
}

/** A list from which something is put in: it falls back to its invitation. @param {string} label @param {string} invitation @param {readonly (readonly [string, string])[]} all @param {(value: string) => void} put */
export function pick(label, invitation, all, put) {
  const chosen = (e) => {
    const { value } = e.target;
    e.target.value = "";
    if (value) put(value);
  };
  return html`<label
    >${label}<select @change=${chosen}>
      ${options([["", invitation], ...all], "")}
    </select></label
  >`;
}

/** @param {string} label @param {boolean} on @param {(on: boolean) => void} put @param {{id?: string, disabled?: boolean, said?: string}} [more] */
export function check(label, on, put, { id, disabled, said } = {}) {
  return html`<input
      type="checkbox"
      id=${id ?? nothing}
      aria-label=${said ?? nothing}
      ?disabled=${disabled}
      .checked=${live(!!on)}
      @change=${(e) => put(e.target.checked)}
    />${label}`;
}

/**
 * A number between bounds.
 * @param {number | string} value
 * @param {(value: number) => void} put
 * @param {{min?: number, max?: number, step?: number | "any", id?: string, class?: string, placeholder?: string, disabled?: boolean, said?: string}} [more]
 */
export function numberBox(value, put, more = {}) {
  return html`<input
    type="number"
    min=${more.min ?? nothing}
    max=${more.max ?? nothing}
    step=${more.step ?? nothing}
    id=${more.id ?? nothing}
    class=${more.class ?? nothing}
    placeholder=${more.placeholder ?? nothing}
    aria-label=${more.said ?? nothing}
    ?disabled=${more.disabled}
    .value=${typed(String(value))}
    @change=${(e) => put(Number(e.target.value))}
  />`;
}

/** A line of text; what somebody is typing is left alone until it is told. @param {string} value @param {(value: string) => void} put @param {Record<string, any>} [more] */
export function textBox(value, put, more = {}) {
  return html`<input
    class=${more.class ?? nothing}
    id=${more.id ?? nothing}
    size=${more.size ?? nothing}
    maxlength=${more.maxlength ?? nothing}
    placeholder=${more.placeholder ?? nothing}
    inputmode=${more.inputmode ?? nothing}
    title=${more.title ?? nothing}
    data-part=${more.part ?? nothing}
    spellcheck=${more.code ? "false" : nothing}
    aria-label=${more.said ?? nothing}
    ?disabled=${more.disabled}
    .value=${typed(value ?? "")}
    @change=${(e) => put(e.target.value)}
  />`;
}

/** A chooser of files that looks like a button. @param {string} label @param {string} accept @param {(file: File) => void} put @param {{id?: string}} [more] */
export function fileButton(label, accept, put, { id } = {}) {
  const chosen = (e) => {
    const file = e.target.files[0];
    e.target.value = "";
    if (file) put(file);
  };
  return html`<label class="button"
    >${label}<input type="file" accept=${accept} class="sr-only" id=${id ?? nothing} @change=${chosen}
  /></label>`;
}

/** Moves one of a list by some places. @template T @param {T[]} list @param {number} i @param {number} by */
export function moved(list, i, by) {
  list.splice(i + by, 0, ...list.splice(i, 1));
}

/** Gives a text to the person as a file. @param {string} name @param {string} type @param {string} text */
export function giveFile(name, type, text) {
  const a = document.createElement("a");
  a.href = URL.createObjectURL(new Blob([text], { type }));
  a.download = name;
  a.click();
  setTimeout(() => URL.revokeObjectURL(a.href), 10_000);
}
