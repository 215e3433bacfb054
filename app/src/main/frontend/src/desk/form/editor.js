// What can be set of one question, edited in its margin; each change is stored at once.
import { check, fileButton, options, textBox } from "../../shell/controls.js";
import { say } from "../../shell/say.js";
import { html, nothing } from "../../shell/view.js";
import { codes } from "./codes.js";
import { rules } from "./rules.js";
import { CODED, COUNTED, MEDIA, MEASURED, typesSaid, WAYS } from "./types.js";

const labelled = (id, said, box) => html`<p><label class="label" for=${id}>${said}</label>${box}</p>`;
const wide = (id) => ({ id, class: "w-full" });

/** @returns {[string, string][]} */
const needs = () => [
  ["free", say("desk.form.free")],
  ["wanted", say("sheet.wanted")],
  ["needed", say("sheet.needed")],
];

/** @param {any} state @param {any} q */
export function editor(state, q) {
  const put = (property) => (v) => state.set(property, v);
  const list = (id, all, value, property) =>
    html`<select class="w-full" id=${id} @change=${(e) => state.set(property, e.target.value)}>
      ${options(all, value)}
    </select>`;
  const writes = q.writesTo ? say("desk.form.writesTo", { field: q.writesTo }) : say("desk.form.keptOnVisit");
  return html`<div class="grid gap-3 py-2" id="editor">
    <p class="quiet">${writes}</p>
    ${labelled("e-label", say("desk.form.label"), textBox(q.label, put("label"), wide("e-label")))}
    <div class="grid gap-3 grid-cols-2">
      ${labelled("e-type", say("desk.form.type"), list("e-type", typesSaid(), q.type, "type"))}
      ${labelled("e-need", say("desk.form.answerIs"), list("e-need", needs(), q.need ?? "free", "need"))}
    </div>
    ${labelled("e-hint", say("desk.form.hint"), textBox(q.hint, put("hint"), wide("e-hint")))} ${measures(state, q)}
    ${CODED.includes(q.type) ? codes(state, q) : nothing}
    ${more("more-looks", say("desk.form.looks"), looks(state, q, list), shown(q, ["as", "width", "picture", "placeholder"]))}
    ${more("e-hand", say("desk.form.whoMay"), hand(state, q), shown(q, ["readOnly", "lockOnRevisit", "officeOnly", "unique", "notAsked", "keepOnAsset"]))}
    ${rules(state, q)} ${asLine(state, q)}
    <p class="flex flex-wrap gap-2">
      <button type="button" id="move-up" @click=${() => state.edit({ op: "move", question: q.name, by: -1 })}>
        ${say("desk.form.moveUp")}
      </button>
      <button type="button" id="move-down" @click=${() => state.edit({ op: "move", question: q.name, by: 1 })}>
        ${say("desk.form.moveDown")}
      </button>
      <button type="button" @click=${() => state.insert([q])}>${say("desk.form.again")}</button>
      <button type="button" @click=${() => state.remove()}>${say("desk.form.removeQuestion")}</button>
    </p>
  </div>`;
}

const shown = (q, properties) => properties.some((p) => q[p] !== undefined);

/** What is set seldom is folded away, but not when something of it is set. */
function more(id, said, inside, open) {
  return html`<details id=${id} ?open=${open}>
    <summary>${said}</summary>
    <div class="grid gap-2 pt-2">${inside}</div>
  </details>`;
}

/** How much an answer may measure. */
function measures(state, q) {
  const num = (property, said, how = {}) => {
    const set = (e) => state.set(property, e.target.value.trim() === "" ? null : Number(e.target.value));
    const { step = "any", least } = /** @type {{step?: string, least?: number}} */ (how);
    return labelled(
      "e-" + property,
      said,
      html`<input
        type="number"
        class="w-full"
        id=${"e-" + property}
        step=${step}
        min=${least ?? nothing}
        .value=${q[property] ?? ""}
        @change=${set}
      />`,
    );
  };
  const whole = { step: "1", least: 0 };
  const unit = labelled(
    "e-unit",
    say("desk.form.unit"),
    textBox(q.unit, (v) => state.set("unit", v), wide("e-unit")),
  );
  if (MEASURED.includes(q.type))
    return html`<div class="grid gap-3 grid-cols-4">
      ${q.type === "duration" ? nothing : unit} ${num("from", say("desk.form.from"))} ${num("to", say("desk.form.to"))}
      ${q.type === "decimal" ? num("decimals", say("desk.form.decimals"), whole) : nothing}
    </div>`;
  if (!COUNTED.includes(q.type)) return nothing;
  return html`<div class="grid gap-3 grid-cols-3">
    ${num("least", say("desk.form.least"), whole)} ${num("most", say("desk.form.most"), whole)}
    ${q.type === "long_text" ? num("lines", say("desk.form.lines"), whole) : nothing}
  </div>`;
}

/** How it looks: its layout among those that fit its kind, half or all of the width, its reference picture. */
function looks(state, q, list) {
  const ways = state.ways(q.type).map((w) => [w, say(WAYS[w])]);
  const picture = q.picture ? state.fileUrl(q.picture) : "";
  return html`${ways.length > 1 ? labelled("e-as", say("desk.form.layout"), list("e-as", ways, q.as ?? "", "as")) : nothing}
    <label class="flex items-center gap-2"
      >${check(say("desk.form.half"), q.width === "half", (on) => state.set("width", on ? "half" : "full"))}</label
    >
    ${labelled(
      "e-placeholder",
      say("desk.form.placeholder"),
      textBox(q.placeholder, (v) => state.set("placeholder", v), wide("e-placeholder")),
    )}
    <div class="flex gap-2 items-center">
      ${picture ? html`<img class="reference small" src=${picture} alt=${say("desk.form.pictureOf", { label: q.label })} />` : nothing}
      ${fileButton(say("desk.form.picture"), "image/*", (file) => state.setPicture(file, q.name, ""), { id: "e-picture" })}
      ${picture ? html`<button type="button" class="plain" @click=${() => state.set("picture", "")}>${say("desk.form.noPicture")}</button>` : nothing}
    </div>`;
}

/** Who may answer, and what becomes of the answer. */
function hand(state, q) {
  const flag = (property, said) =>
    html`<label class="flex items-center gap-2"
      >${check(said, q[property], (on) => state.set(property, on), { id: "e-" + property })}</label
    >`;
  const emptied = check(say("desk.form.emptied"), q.notAsked === "emptied", (on) => state.set("notAsked", on ? "emptied" : "left"));
  return html`${flag("readOnly", say("desk.form.readOnly"))} ${flag("lockOnRevisit", say("desk.form.lockedLong"))}
  ${flag("officeOnly", say("desk.form.officeLong"))} ${flag("unique", say("desk.form.uniqueLong"))}
  ${q.writesTo ? html`<label class="flex items-center gap-2">${emptied}</label>` : nothing}
  ${MEDIA.includes(q.type) ? flag("keepOnAsset", say("desk.form.keepOnAsset")) : nothing}
  ${labelled(
    "e-name",
    say("desk.form.name"),
    textBox(q.name, (v) => state.rename(q.name, v.trim()), { ...wide("e-name"), code: true }),
  )}`;
}

/** The question as its line, which can be changed here too. */
function asLine(state, q) {
  return labelled(
    "e-line",
    say("desk.form.asLine"),
    textBox(state.lineOf(q.name), (v) => state.setLine(q.name, v), { ...wide("e-line"), code: true }),
  );
}
