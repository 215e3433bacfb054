// Inputs for the fields of a layer, each by its type: code lists, units, pickers, hints. Texts stay as they are typed; the engine says what they are and what is wrong.
import { options } from "../../shell/controls.js";
import { say } from "../../shell/say.js";
import { typed as typedBox } from "../../shell/typed.js";
import { html, live, nothing, repeat } from "../../shell/view.js";
import { about, asStood } from "./values.js";

const NUMBERS = ["whole", "decimal"];
const PLACEHOLDER = { date: "2026-05-04", time: "09:30", date_time: "2026-05-04T09:30Z" };
const same = (a, b) => JSON.stringify(a) === JSON.stringify(b);

/** What somebody is typing in just now, so that the typing of one box is one step. */
let typing = "";

/**
 * The inputs of one feature. `typed` are texts by field that people have typed, `stood` the values that it has; `faults` words by field.
 * `changed(name, text or list, again)` hears each change, `undefined` when it is again as it stood; `again` says that it is the same typing as before, which
 * goes on.
 * @param {{id: string, schema: any, typed: any, stood: any, isNew: boolean, faults: Record<string, string>, changed: (name: string, value: any, again: boolean) => void}} of
 */
export function valuesForm({ id, schema, typed, stood, isNew, faults, changed }) {
  const row = (f) => {
    const key = `${id}-${f.name}`;
    const hear = (v, goesOn = false) => {
      const again = typing === key;
      typing = goesOn ? key : "";
      changed(f.name, same(v, asStood(stood[f.name])) && !isNew ? undefined : v, again);
    };
    // while people type, nothing is called wrong that was not so before
    const wrong = typing === key && !wrongBefore.has(key) ? "" : (faults[f.name] ?? "");
    wrongBefore[wrong ? "add" : "delete"](key);
    return field(f, key, { value: typed[f.name] ?? asStood(stood[f.name]), stood: stood[f.name], isNew, wrong, hear });
  };
  return html`<div id="new-values">${repeat(schema.fields, (f) => `${id}-${f.name}`, row)}</div>`;
}

/** Fields under which something is called wrong. */
const wrongBefore = new Set();

function field(f, key, { value, stood, isNew, wrong, hear }) {
  const fills = f.readOnly || f.type === "unique_id";
  const note = about(f, isNew);
  const unit = f.unit ? html`<span class="quiet font-normal"> (${f.unit})</span>` : nothing;
  const label =
    f.type === "codes"
      ? html`<span class="label" id=${`${key}-label`}>${f.label}</span>`
      : html`<label class="label" for=${key}>${f.label}${unit}</label>`;
  const filled = () => html`<output class="quiet" id=${key}>${String(asStood(stood) || say("desk.value.fills"))}</output>`;
  return html`<div class="mt-2" data-value-of=${f.name}>
    ${label}${fills ? filled() : inputOf(f, key, value, hear)}${!fills && note ? html`<p class="quiet text-sm">${note}</p>` : nothing}
    <p class="text-bracken text-sm" id=${`${key}-wrong`} role="alert">${wrong}</p>
  </div>`;
}

/** The codes that are offered: those in use, and what the feature has. */
const listed = (f, has) => (f.codes ?? []).filter((c) => !c.retired || has.includes(c.code));
const odd = (value) => say("desk.value.notInList", { value });

function inputOf(f, key, value, hear) {
  if (f.type === "codes") return many(f, key, Array.isArray(value) ? value : value ? [value] : [], hear);
  if (f.codes?.length) return oneOf(f, key, value, hear);
  if (f.type === "yes_no")
    return list(
      key,
      [
        ["", ""],
        ["yes", say("desk.value.yes")],
        ["no", say("desk.value.no")],
      ],
      value,
      hear,
    );
  const text = html`<input
    id=${key}
    class="w-full"
    aria-describedby=${`${key}-wrong`}
    autocomplete="off"
    inputmode=${NUMBERS.includes(f.type) ? "decimal" : nothing}
    placeholder=${PLACEHOLDER[f.type] ?? nothing}
    .value=${typedBox(value)}
    @input=${(e) => hear(e.target.value, true)}
    @change=${(e) => hear(e.target.value)}
  />`;
  return f.type === "date" || f.type === "date_time" ? html`<div class="flex gap-1">${text}${picker(f, hear)}</div>` : text;
}

function list(key, all, value, hear) {
  return html`<select id=${key} class="w-full" aria-describedby=${`${key}-wrong`} @change=${(e) => hear(e.target.value)}>
    ${options(all, value)}
  </select>`;
}

function oneOf(f, key, value, hear) {
  const known = listed(f, [value]);
  const label = (c) => (c.retired ? say("desk.value.retired", { label: c.label }) : c.label);
  const all = [["", ""], ...known.map((c) => [c.code, label(c)])];
  if (value !== "" && !known.some((c) => c.code === value)) all.splice(1, 0, [value, odd(value)]);
  return list(key, all, value, hear);
}

/** The browser's own picker beside the text, since only a text can hold what is not a day yet. */
function picker(f, hear) {
  const moment = f.type === "date_time";
  const picked = (e) => {
    const { value } = e.target;
    if (value) hear(moment ? new Date(value).toISOString().replace(/:00\.000Z$/, "Z") : value);
  };
  return html`<input
    type=${moment ? "datetime-local" : "date"}
    class="picker"
    tabindex="-1"
    aria-label=${say("desk.value.pick", { label: f.label })}
    @change=${picked}
  />`;
}

function many(f, key, value, hear) {
  const others = value.filter((v) => !f.codes?.some((c) => c.code === v)).map((v) => ({ code: v, label: odd(v) }));
  const put = (code, on) => hear(on ? [...value, code] : value.filter((v) => v !== code));
  const one = (c) =>
    html`<label class="flex gap-2 items-center"
      ><input
        type="checkbox"
        value=${c.code}
        .checked=${live(value.includes(c.code))}
        @change=${(e) => put(c.code, e.target.checked)}
      />${c.label}</label
    >`;
  return html`<div role="group" id=${key} aria-labelledby=${`${key}-label`} class="flex flex-wrap gap-x-4 gap-y-1">
    ${[...listed(f, value), ...others].map(one)}
  </div>`;
}
