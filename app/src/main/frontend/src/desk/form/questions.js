// The sheet as a list: sections, blocks and questions, chosen one or several at once, moved, put into sections, opened.
import { say } from "../../shell/say.js";
import { textBox } from "../../shell/controls.js";
import { symbol } from "../../shell/symbols.js";
import { html, nothing, repeat } from "../../shell/view.js";
import { editor } from "./editor.js";
import { typeSaid } from "./types.js";
import { typingLine } from "./typing.js";

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

function line(state, q, block, n) {
  const open = q.name === state.openName;
  const setBlock = (value) => state.edit({ op: "block.set", section: n, block: block.name, property: "title", value });
  const wrong = state.problemsOf(q.name).length > 0;
  const pick = (e) => {
    if (e.shiftKey) state.chooseTo(q.name);
    else if (e.ctrlKey || e.metaKey) state.chooseToo(q.name);
    else state.turn(q.name);
  };
  const drag = {
    start: (e) => {
      if (!state.chosen.includes(q.name)) state.choose([q.name]);
      e.dataTransfer.setData("text/plain", state.engine.formText(JSON.stringify(state.form), JSON.stringify(state.chosen)));
      e.dataTransfer.effectAllowed = "move";
    },
    over: (e) => e.preventDefault(),
    drop: (e) => {
      e.preventDefault();
      state.putBefore(q.name);
    },
  };
  return html`${block ? html`<li class="form-block">${textBox(block.title, setBlock, { class: "w-full", said: say("desk.form.blockTitle"), part: "block-title" })}</li>` : nothing}
    <li
      class="form-line"
      data-open=${String(open)}
      data-line=${q.name}
      data-chosen=${String(state.chosen.includes(q.name))}
      draggable=${open ? "false" : "true"}
      @dragstart=${drag.start}
      @dragover=${drag.over}
      @drop=${drag.drop}
    >
      <button class="plain w-full text-start" type="button" data-name=${q.name} aria-expanded=${String(open)} @click=${pick}>
        <span>${q.label}</span><span class="quiet font-normal">${typeSaid(q.type)}</span
        ><span class="quiet font-normal ms-auto">${marks(q)}</span
        >${state.others.filter((o) => o.question === q.name).map((o) => html`<span class="chip">${o.person}</span>`)}
        ${wrong ? html`<span class="chip">${say("desk.form.toMend")}</span>` : nothing}
      </button>
      ${open ? editor(state, q) : nothing}
    </li>
    ${state.place.after === q.name ? html`<li>${typingLine(state, q.name, n)}</li>` : nothing}`;
}

/** @param {any} state @param {any} s @param {number} n */
function section(state, s, n) {
  const folded = state.folded.has(n);
  const set = (property) => (value) => state.edit({ op: "section.set", section: n, property, value });
  const button = (said, op, more = {}) =>
    html`<button type="button" class="plain" @click=${() => state.edit({ op, section: n, ...more })}>${said}</button>`;
  const remove = () => {
    if (s.questions.length === 0 || confirm(say("desk.form.removeSectionSure", { n: s.questions.length })))
      state.edit({ op: "section.remove", section: n });
  };
  const drop = (e) => {
    e.preventDefault();
    state.putInto(n);
  };
  const troubled = folded && s.questions.some((q) => state.problemsOf(q.name).length > 0);
  const ruled = folded && s.questions.some((q) => q.askWhen || q.checks?.length || q.workOut);
  /** @type {any} */
  let block = null;
  const titled = (q) => {
    const own = (s.blocks ?? []).find((b) => b.name === q.block) ?? null;
    const begins = own !== block ? own : null;
    block = own;
    return begins;
  };
  return html`<section class="form-section" data-section=${n} @dragover=${(e) => e.preventDefault()} @drop=${drop}>
    <div class="form-section-head">
      <button
        type="button"
        class="plain"
        aria-expanded=${String(!folded)}
        aria-label=${say("desk.form.fold", { title: s.title || say("desk.form.untitled") })}
        @click=${() => state.fold(n)}
      >
        ${symbol(folded ? "right" : "down")}
      </button>
      ${textBox(s.title, set("title"), { class: "flex-1 font-semibold", said: say("desk.form.sectionTitle"), placeholder: say("desk.form.untitled"), part: "section-title" })}
      ${s.startsPage ? html`<span class="chip">${say("desk.form.startsPage")}</span>` : nothing}
      ${s.rows ? html`<span class="chip">${say("desk.form.repeats")}</span>` : nothing}
      ${folded ? html`<span class="quiet">${say("desk.form.foldedHas", { n: s.questions.length })}</span>` : nothing}
      ${ruled ? html`<span class="chip">${say("desk.form.hasRules")}</span>` : nothing}
      ${troubled ? html`<span class="chip">${say("desk.form.toMend")}</span>` : nothing}
      <details class="form-section-more" x-data="shutting">
        <summary aria-label=${say("desk.form.sectionMore", { title: s.title || say("desk.form.untitled") })}>…</summary>
        <div class="card flex flex-col gap-1 items-start">
          ${button(s.startsPage ? say("desk.form.noPage") : say("desk.form.beginPage"), "section.set", { property: "startsPage", value: !s.startsPage })}
          ${button(s.rows ? say("desk.form.repeatNoMore") : say("desk.form.letRepeat"), "section.set", { property: "rows", value: s.rows ? null : {} })}
          ${button(say("desk.form.moveUp"), "section.move", { by: -1 })} ${button(say("desk.form.moveDown"), "section.move", { by: 1 })}
          ${button(say("desk.form.dissolve"), "section.dissolve")}
          <button type="button" class="plain" @click=${remove}>${say("desk.form.removeSection")}</button>
        </div>
      </details>
    </div>
    ${
      folded
        ? nothing
        : html`<ol>
            ${repeat(
              s.questions,
              (q) => q.name,
              (q) => line(state, q, titled(q), n),
            )}
          </ol>`
    }
    ${state.place.section === n && (folded || !state.place.after) ? typingLine(state, state.place.after, n) : nothing}
  </section>`;
}

/** What can be done with several questions that are chosen. */
function several(state) {
  const n = state.chosen.length;
  if (n < 2) return nothing;
  const sectionOf = async () => {
    const first = state.chosen[0];
    await state.edit({ op: "section.of", questions: state.chosen, title: "" });
    const made = /** @type {HTMLElement | null} */ (document.querySelector(`[data-line="${first}"]`))?.closest(".form-section");
    /** @type {HTMLElement | null | undefined} */ (made?.querySelector("[data-part=section-title]"))?.focus();
  };
  const blockOf = () => state.edit({ op: "block.of", questions: state.chosen, title: say("desk.form.newBlock") });
  const set = (property, value) => state.edit({ op: "set", questions: state.chosen, property, value });
  return html`<div class="told flex flex-wrap gap-2 items-center" id="chosen" role="status">
    <strong>${say("desk.form.chosen", { n })}</strong>
    <button type="button" id="section-of" @click=${sectionOf}>${say("desk.form.sectionOf")}</button>
    <button type="button" id="block-of" @click=${blockOf}>${say("desk.form.blockOf")}</button>
    <button type="button" @click=${() => set("need", "needed")}>${say("desk.form.makeNeeded")}</button>
    <button type="button" @click=${() => set("need", "free")}>${say("desk.form.makeFree")}</button>
    <button type="button" id="remove-chosen" @click=${() => state.removeChosen()}>${say("do.remove")}</button>
    <button type="button" @click=${() => state.choose([])}>${say("desk.form.chooseNone")}</button>
  </div>`;
}

/** @param {any} state */
export function questions(state) {
  const empty = state.questions.length === 0;
  return html`${several(state)}
    <div id="questions" @keydown=${(e) => state.key(e)}>
      ${empty ? html`<p class="told">${say("desk.form.firstStep")}</p>` : nothing}
      ${state.form.sections.map((s, n) => section(state, s, n))} ${state.form.sections.length === 0 ? typingLine(state, "", 0) : nothing}
    </div>`;
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
