// The part of a sheet in which one question is answered, by its kind. It decides nothing: it shows the view's value and says what people did.
import { h } from "./dom.js";

/** Kinds in which people type, so that their box must not be drawn anew while they do. */
export const TYPED = ["text", "long_text", "whole", "decimal", "counter", "duration", "tag", "link", "time"];

/** Kinds that are answered by a tap, so that an answer can only be taken away by an act of its own. */
export const TAPPED = ["yes_no", "choice", "grade", "choices", "ranked"];

/** The answer's nodes; `set` takes the new value, `focus` the element that is to be found again. */
export function answerNodes(q, id, { set, focus, act }) {
  const unit = unitOf(q);
  if (q.type === "read") return [];
  if (q.type === "picture") return [h("p", { class: "quiet" }, q.picture ? "a picture to look at comes here" : "no picture is chosen yet")];
  if (q.type === "photo") return photos(q, id, act);
  if (q.fixed) return [h("output", { class: "q-fixed", id }, q.shown || "—")];
  switch (q.type) {
    case "yes_no":
      return [choices(q, id, [["true", "Yes"], ["false", "No"]], (c) => String(q.value) === c, act)];
    case "choice":
    case "grade":
      if (q.as === "list" || (q.codes.length > 8 && !q.as)) return [focus(select(q, id, set))];
      return [choices(q, id, codes(q), (c) => String(q.value) === c, act)];
    case "choices": {
      const chosen = list(q);
      return [choices(q, id, codes(q), (c) => chosen.includes(c), act)];
    }
    case "ranked": {
      const ranks = list(q);
      return [choices(q, id, codes(q), (c) => ranks.includes(c), act, (c) => (ranks.includes(c) ? `${ranks.indexOf(c) + 1}. ` : ""))];
    }
    case "counter":
      return counter(q, id, set, focus);
    case "long_text":
      return [focus(h("textarea", { id, rows: String(q.lines ?? 3), placeholder: q.placeholder, oninput: (e) => set(e.target.value) }, q.value ?? ""))];
    case "date":
      return [focus(h("input", { id, type: "date", value: q.value ?? "", onchange: (e) => set(e.target.value || null) })), misfit(q)];
    case "time":
      return [focus(h("input", { id, type: "time", value: q.value ?? "", onchange: (e) => set(e.target.value || null) }))];
    case "whole":
    case "decimal":
    case "duration":
      return [focus(number(q, id, set)), ...unit, range(q)];
    case "point":
    case "line":
    case "area":
    case "sketch":
    case "signature":
    case "sound":
    case "file":
      return [h("output", { class: "q-fixed", id }, q.value ? q.shown : "—"), h("span", { class: "quiet" }, "this kind of question can't be answered here yet")];
    default:
      return [focus(h("input", { id, type: "text", autocomplete: "off", placeholder: q.placeholder, value: q.value === null ? "" : String(q.value), oninput: (e) => set(e.target.value || null) })), ...unit];
  }
}

function unitOf(q) {
  const unit = q.type === "duration" ? "min" : q.unit;
  return unit ? [h("span", { class: "q-unit" }, unit)] : [];
}

function number(q, id, set) {
  return h("input", { id, type: "text", class: q.type === "counter" ? "number counted" : "number", inputmode: q.type === "decimal" ? "decimal" : "numeric", autocomplete: "off", placeholder: q.placeholder, value: q.value === null ? "" : String(q.value), oninput: (e) => set(e.target.value.trim().replace(",", ".") || null) });
}

function counter(q, id, set, focus) {
  const n = Number(q.value ?? 0);
  const step = (by) => h("button", { type: "button", class: "choice", "aria-label": (by > 0 ? "one more, " : "one less, ") + q.label, disabled: n + by < 0, onclick: () => set(n + by) }, by > 0 ? "+" : "−");
  return [step(-1), focus(number(q, id, set)), step(1), ...unitOf(q), range(q)];
}

/** The range of a number, said beside its box. */
function range(q) {
  const [from, to] = [q.from_value, q.to_value];
  if (from === undefined && to === undefined) return "";
  const words = from === undefined ? `at most ${to}` : to === undefined ? `at least ${from}` : `${from} to ${to}`;
  return h("span", { class: "quiet" }, words);
}

const list = (q) => (Array.isArray(q.value) ? q.value : []);
const codes = (q) => q.codes.map((c) => [c.code, c.label]);

/** A date field can't show text that is no date; the text stands beside it instead of vanishing. */
function misfit(q) {
  return q.value && !/^\d{4}-\d{2}-\d{2}$/.test(q.value) ? h("span", { class: "code" }, q.shown) : "";
}

function choices(q, id, all, isOn, act, before = () => "") {
  return h("div", { class: q.as === "side by side" || q.type === "grade" ? "choices in-line" : q.as === "compact" ? "choices compact" : "choices", role: "group", "aria-labelledby": id + "-label", id },
    all.map(([code, label]) => h("button", { type: "button", class: "choice", "data-code": code, "aria-pressed": String(isOn(code)), onclick: () => act.tap(q.name, code, q.row, Array.isArray(q.value) && q.confirmed && isOn(code) ? label : "") }, before(code) + label)));
}

function select(q, id, set) {
  return h("select", { id, onchange: (e) => set(e.target.value || null) }, h("option", { value: "" }, "—"), q.codes.map((c) => h("option", { value: c.code, selected: String(q.value) === c.code }, c.label)));
}

function photos(q, id, act) {
  const ids = list(q);
  const more = !q.most || ids.length < q.most;
  const input = h("input", { type: "file", id, accept: "image/*", capture: "environment", class: "sr-only", disabled: !act.addPhoto, onchange: (e) => e.target.files[0] && act.addPhoto(q.name, e.target.files[0], q.row) });
  return [
    more && act.addPhoto ? h("div", {}, input, h("label", { for: id, class: "button" }, ids.length ? "Another photo" : "Take a photo")) : more ? h("span", { class: "quiet" }, "photos are taken in the day book") : "",
    h("div", { class: "shots" }, ids.map((p) => {
      const known = act.photo?.(p) ?? {};
      return h("figure", { "data-photo": p }, known.url ? h("img", { src: known.url, alt: "photo of " + q.label }) : "", h("figcaption", {}, known.note ?? "", " ", act.removePhoto ? h("button", { type: "button", class: "plain", onclick: () => act.removePhoto(q.name, p, q.row) }, "Remove") : ""));
    })),
  ];
}
