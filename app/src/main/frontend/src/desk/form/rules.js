// The rules of one question: when it is asked, what must hold, how it is worked out, what it begins with.
import { check, options, textBox } from "../../shell/controls.js";
import { say } from "../../shell/say.js";
import { html, nothing, repeat } from "../../shell/view.js";

const labelled = (id, said, box) => html`<p><label class="label" for=${id}>${said}</label>${box}</p>`;

/** @param {any} state @param {any} q */
export function rules(state, q) {
  const rule = (property) => (v) => state.set(property, v.trim());
  const formula = (id, placeholder) => ({ id, class: "rule", code: true, placeholder });
  return html`${labelled("e-ask", say("desk.form.askWhen"), textBox(q.askWhen, rule("askWhen"), formula("e-ask", say("desk.form.askWhenLike"))))}
    <div id="e-checks">
      <p class="label">${say("desk.form.checks")}</p>
      ${repeat(
        q.checks ?? [],
        (_, i) => i,
        (c, i) => oneCheck(state, c, i),
      )}
      <button class="plain" type="button" id="add-check" @click=${() => state.addCheck()}>${say("desk.form.addCheck")}</button>
    </div>
    ${labelled("e-work", say("desk.form.workOut"), textBox(q.workOut, rule("workOut"), formula("e-work", say("desk.form.workOutLike"))))}
    ${lookUp(state)} ${state.problemsOf(q.name).map((p) => problem(state, p))}`;
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
