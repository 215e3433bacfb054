// The list of a form's questions, what keeps it from being published, and adding one.
import { options } from "../../shell/controls.js";
import { say } from "../../shell/say.js";
import { html, nothing, repeat } from "../../shell/view.js";
import { editor } from "./editor.js";
import { typeSaid, typesSaid } from "./types.js";

/** @type {Record<string, import("../../shell/say.js").MessageKey>} */
const NEED = { needed: "sheet.needed", wanted: "sheet.wanted" };

/** What a question has beside its label. */
function marks(q) {
  const all = [
    q.need in NEED ? say(NEED[q.need]) : "",
    q.askWhen ? say("desk.form.asked") : "",
    q.checks?.length ? say("desk.form.checkCount", { n: q.checks.length }) : "",
    q.workOut ? say("desk.form.worked") : "",
    q.prefill?.some((p) => p.from === "place") ? say("desk.form.lookedUp") : "",
  ];
  return all.filter(Boolean).join(" · ");
}

function line(state, q, section) {
  const open = q.name === state.openName;
  const wrong = state.problemsOf(q.name).length > 0;
  return html`<li class="form-line" data-open=${String(open)} data-line=${q.name}>
    ${section ? html`<p class="quiet text-sm">${section}</p>` : nothing}
    <button
      class="plain w-full text-start"
      type="button"
      data-name=${q.name}
      aria-expanded=${String(open)}
      @click=${() => state.turn(q.name)}
    >
      <span>${q.label}</span><span class="quiet font-normal">${typeSaid(q.type)}</span
      ><span class="quiet font-normal ms-auto">${marks(q)}</span
      >${wrong ? html`<span class="chip">${say("desk.form.toMend")}</span>` : nothing}
    </button>
    ${open ? editor(state, q) : nothing}
  </li>`;
}

/** @param {any} state */
export function questions(state) {
  const lines = state.form.sections.flatMap((s) => s.questions.map((q, k) => ({ q, section: k === 0 ? s.title : "" })));
  const add = (e) => {
    e.preventDefault();
    const label = e.target.elements["new-label"];
    state.add(label.value.trim(), e.target.elements["new-type"].value);
    label.value = "";
  };
  return html`<ol class="border-t border-slate" id="questions">
      ${repeat(
        lines,
        ({ q }) => q.name,
        ({ q, section }) => line(state, q, section),
      )}
    </ol>
    <form class="flex gap-2 items-end mt-3" @submit=${add}>
      <p class="flex-1">
        <label class="label" for="new-label">${say("desk.form.another")}</label><input class="w-full" id="new-label" autocomplete="off" />
      </p>
      <p>
        <label class="label" for="new-type">${say("desk.form.type")}</label
        ><select id="new-type">
          ${options(typesSaid(), "text")}
        </select>
      </p>
      <button type="submit">${say("desk.form.add")}</button>
    </form>`;
}

function told(state, all) {
  const one = (p) =>
    html`<li>
      <button class="plain" type="button" data-name=${p.question} @click=${() => state.open(p.question)}>${p.question}</button> ${p.part}:
      ${p.message}
    </li>`;
  return html`<ul>
    ${all.map(one)}
  </ul>`;
}

/** What keeps the form from being published, and what is worth knowing. @param {any} state */
export function report(state) {
  const wrong = () =>
    html`<div class="problem" id="form-problems">
      <p>${say("desk.form.keepsFrom", { n: state.problems.length })}</p>
      ${told(state, state.problems)}
    </div>`;
  const notes = () =>
    html`<div class="told" id="form-notes">
      <p>${say("desk.form.worthKnowing")}</p>
      ${told(state, state.notes)}
    </div>`;
  return html`<p class="problem" role="alert" ?hidden=${!state.failure}>${state.failure}</p>
    ${state.isSound ? nothing : wrong()}${state.notes.length ? notes() : nothing}`;
}
