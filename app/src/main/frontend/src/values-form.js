// Inputs for the fields of a layer, each by its type: code lists, units, pickers, hints. Texts stay as they are typed; the engine says what they are and what is wrong.
import { afterPress, h } from "./dom.js";

const NUMBERS = ["whole", "decimal"];
const PLACEHOLDER = { date: "2026-05-04", time: "09:30", date_time: "2026-05-04T09:30Z" };

/** A stored value as it is typed: texts, and lists of texts for many codes. */
export function asTyped(value) {
  if (value === null || value === undefined) return "";
  if (Array.isArray(value)) return value.map(String);
  if (typeof value === "boolean") return value ? "yes" : "no";
  return String(value);
}

const same = (a, b) => JSON.stringify(a) === JSON.stringify(b);
const shownOf = (f, code) => f.codes?.find((c) => c.code === code)?.label ?? code;

/** What stands under a field that is empty so far: how it fills, or what it must be. */
function about(f, isNew) {
  const start = f.start?.fixed !== undefined ? `begins with ${shownOf(f, f.start.fixed)}` : f.start?.formula !== undefined ? "worked out if left empty" : "";
  return [isNew ? start : "", f.nullable === false ? "needed" : "", f.unique ? "unique" : "", f.length ? `up to ${f.length} characters` : "", f.hint ?? ""].filter(Boolean).join(" · ");
}

/**
 * The inputs of one feature. `typed` are texts by field that people have typed, `stood` the values that it has; `faults` words by field.
 * `changed(name, text or list, again)` hears each change, `undefined` when it is again as it stood, and gives what is wrong in words; `again` says that it is
 * the same typing as before, which goes on.
 */
export function valuesForm({ id, schema, typed, stood, isNew, faults, changed }) {
  let typing = null;
  const of = (f) => typed[f.name] ?? asTyped(stood[f.name]);
  const rows = schema.fields.map((f) => {
    const fills = f.readOnly || f.type === "unique_id";
    const key = `${id}-${f.name}`;
    const problem = h("p", { class: "text-bracken text-sm", id: `${key}-wrong`, role: "alert" }, faults[f.name] ?? "");
    const hear = (v, goesOn = false) => {
      const wrong = changed(f.name, same(v, asTyped(stood[f.name])) && !isNew ? undefined : v, typing === f.name);
      typing = goesOn ? f.name : null;
      // while people type, nothing is called wrong that was not so before
      if (!goesOn || !wrong || problem.textContent) afterPress(() => (problem.textContent = wrong));
    };
    const note = about(f, isNew);
    return h("div", { class: "mt-2", "data-value-of": f.name },
      f.type === "codes" ? h("span", { class: "label", id: `${key}-label` }, f.label) : h("label", { class: "label", for: key }, f.label, f.unit && h("span", { class: "quiet font-normal" }, ` (${f.unit})`)),
      fills ? h("output", { class: "quiet", id: key }, String(asTyped(stood[f.name]) || "filled by itself")) : inputOf(f, key, of(f), hear),
      !fills && note && h("p", { class: "quiet text-sm" }, note),
      problem);
  });
  return h("div", { id: "new-values" }, rows);
}

function inputOf(f, key, value, hear) {
  const common = { id: key, class: "w-full", "aria-describedby": `${key}-wrong` };
  const listed = (value2) => (f.codes ?? []).filter((c) => !c.retired || value2.includes(c.code));
  if (f.type === "codes") return many(f, key, Array.isArray(value) ? value : value ? [value] : [], listed, hear);
  if (f.codes?.length) {
    const known = listed([value]);
    const odd = value !== "" && !known.some((c) => c.code === value);
    return h("select", { ...common, onchange: (e) => hear(e.target.value) }, h("option", { value: "" }, ""), odd && h("option", { value, selected: true }, `${value} (not in the list)`), known.map((c) => h("option", { value: c.code, selected: c.code === value }, c.label + (c.retired ? " (retired)" : ""))));
  }
  if (f.type === "yes_no") return h("select", { ...common, onchange: (e) => hear(e.target.value) }, [["", ""], ["yes", "yes"], ["no", "no"]].map(([v, s]) => h("option", { value: v, selected: v === value }, s)));
  const text = h("input", { ...common, value, autocomplete: "off", inputmode: NUMBERS.includes(f.type) ? "decimal" : undefined, placeholder: PLACEHOLDER[f.type], oninput: (e) => hear(e.target.value, true), onchange: (e) => hear(e.target.value) });
  return f.type === "date" || f.type === "date_time" ? h("div", { class: "flex gap-1" }, text, picker(f, text, hear)) : text;
}

/** The browser's own picker beside the text, since only a text can hold what is not a day yet. */
function picker(f, text, hear) {
  const moment = f.type === "date_time";
  return h("input", { type: moment ? "datetime-local" : "date", class: "picker", tabindex: "-1", "aria-label": `pick ${f.label}`, onchange: (e) => {
    if (!e.target.value) return;
    text.value = moment ? new Date(e.target.value).toISOString().replace(/:00\.000Z$/, "Z") : e.target.value;
    hear(text.value);
  } });
}

function many(f, key, value, listed, hear) {
  const chosen = new Set(value);
  const odd = value.filter((v) => !f.codes?.some((c) => c.code === v)).map((v) => ({ code: v, label: `${v} (not in the list)` }));
  return h("div", { role: "group", id: key, "aria-labelledby": `${key}-label`, class: "flex flex-wrap gap-x-4 gap-y-1" }, [...listed(value), ...odd].map((c) => h("label", { class: "flex gap-2 items-center" }, h("input", { type: "checkbox", value: c.code, checked: chosen.has(c.code), onchange: (e) => {
    if (e.target.checked) chosen.add(c.code);
    else chosen.delete(c.code);
    hear([...chosen]);
  } }), c.label)));
}
