// What can be set of one question.
import { check, options, textBox } from "../../shell/controls.js";
import { say } from "../../shell/say.js";
import { html, nothing, repeat } from "../../shell/view.js";
import { typesSaid } from "./types.js";

const labelled = (id, said, box) => html`<p><label class="label" for=${id}>${said}</label>${box}</p>`;

/** @returns {[string, string][]} */
const needs = () => [
  ["free", say("desk.form.free")],
  ["wanted", say("sheet.wanted")],
  ["needed", say("sheet.needed")],
];

/** @param {any} state @param {any} q */
export function editor(state, q) {
  const put = (property) => (v) => state.set(property, v);
  const rule = (property) => (v) => state.set(property, v.trim());
  const list = (id, all, value, property) =>
    html`<select class="w-full" id=${id} @change=${(e) => state.set(property, e.target.value)}>
      ${options(all, value)}
    </select>`;
  const wide = (id) => ({ id, class: "w-full" });
  const formula = (id, placeholder) => ({ id, class: "rule", code: true, placeholder });
  const writes = q.writesTo ? say("desk.form.writesTo", { field: q.writesTo }) : say("desk.form.keptOnVisit");
  return html`<div class="grid gap-3 p-2" id="editor">
    <p class="quiet"><span class="code">${q.name}</span>, <span>${writes}</span></p>
    <div class="grid gap-3 md:grid-cols-[2fr_1fr_1fr]">
      ${labelled("e-label", say("desk.form.label"), textBox(q.label, put("label"), wide("e-label")))}
      ${labelled("e-type", say("desk.form.type"), list("e-type", typesSaid(), q.type, "type"))}
      ${labelled("e-need", say("desk.form.answerIs"), list("e-need", needs(), q.need ?? "free", "need"))}
    </div>
    <div class="grid gap-3 md:grid-cols-[3fr_1fr]">
      ${labelled("e-hint", say("desk.form.hint"), textBox(q.hint, put("hint"), wide("e-hint")))}
      ${labelled("e-unit", say("desk.form.unit"), textBox(q.unit, put("unit"), wide("e-unit")))}
    </div>
    ${labelled("e-ask", say("desk.form.askWhen"), textBox(q.askWhen, rule("askWhen"), formula("e-ask", say("desk.form.askWhenLike"))))}
    <div>
      <p class="label">${say("desk.form.checks")}</p>
      ${repeat(
        q.checks ?? [],
        (_, i) => i,
        (c, i) => oneCheck(state, c, i),
      )}
      <button class="plain" type="button" id="add-check" @click=${() => state.addCheck()}>${say("desk.form.addCheck")}</button>
    </div>
    ${labelled("e-work", say("desk.form.workOut"), textBox(q.workOut, rule("workOut"), formula("e-work", say("desk.form.workOutLike"))))}
    ${lookUp(state)} ${state.problemsOf(q.name).map((p) => problem(state, p))}
    <p class="flex gap-2">
      <button type="button" id="move-up" @click=${() => state.edit({ op: "move", question: q.name, by: -1 })}>
        ${say("desk.form.moveUp")}
      </button>
      <button type="button" id="move-down" @click=${() => state.edit({ op: "move", question: q.name, by: 1 })}>
        ${say("desk.form.moveDown")}
      </button>
      <button type="button" @click=${() => state.remove()}>${say("desk.form.removeQuestion")}</button>
    </p>
  </div>`;
}

function oneCheck(state, c, i) {
  const put = (part) => (v) => state.setCheck(i, part, v.trim());
  const soft = check(say("desk.form.onlyAsks"), c.weight === "soft", (on) => state.setCheck(i, "weight", on ? "soft" : "firm"));
  const about = { class: "w-full", said: say("desk.form.message"), placeholder: say("desk.form.messageLike"), part: "message" };
  return html`<div class="grid gap-1 mb-2 ps-2 border-s-2 border-mist">
    ${textBox(c.rule, put("rule"), { class: "rule", code: true, said: say("desk.form.checkRule"), part: "rule" })}
    ${textBox(c.message, put("message"), about)}
    <p class="flex gap-4 items-center">
      <label class="flex items-center gap-2">${soft}</label>
      <button class="plain" type="button" @click=${() => state.removeCheck(i)}>${say("do.remove")}</button>
    </p>
  </div>`;
}

function lookUp(state) {
  const now = state.lookUp;
  const all = state.lookups.flatMap((l) =>
    l.schema.fields.map((f) => [`${l.id}/${f.name}`, say("desk.form.fromLayer", { field: f.label, layer: l.name })]),
  );
  return html`<p>
    <label class="label" for="e-look">${say("desk.form.lookUp")}</label
    ><select class="w-full" id="e-look" @change=${(e) => state.setLookUp(e.target.value)}>
      ${options([["", say("desk.form.noLookUp")], ...all], now ? `${now.layer}/${now.field}` : "")}</select
    >${now ? html`<span class="quiet">${say("desk.form.lookUpHow")}</span>` : nothing}
  </p>`;
}

function problem(state, p) {
  const cure = () =>
    html`<button class="plain" type="button" @click=${() => state.cure(p)}>
      ${say("desk.form.put")} <span class="code">${p.fix}</span>
    </button>`;
  return html`<div class="point firm"><span>${p.part}: ${p.message}</span>${state.canCure(p) ? cure() : nothing}</div>`;
}
