// The annotated sheet: each question as the day book shows it, with what belongs to it beside it; sections and blocks over them.
import { question } from "../../sheet/question.js";
import { addingRows, oneRow, rowHead } from "../../sheet/sheet.js";
import { textBox } from "../../shell/controls.js";
import { say, words } from "../../shell/say.js";
import { symbol } from "../../shell/symbols.js";
import { guard, html, nothing, repeat } from "../../shell/view.js";
import { editor } from "./editor.js";
import { margin } from "./margin.js";
import { rowsOf } from "./rows.js";
import { several } from "./several.js";

/** A question as it is on the sheet now, or that it is not asked there. */
function onSheet(state, q, s) {
  const shown = state.live.shown.get(q.name);
  if (shown) return question(shown, state.live.pointsOf(shown), state.live.act, state.live.taken());
  const list = s.rows ? state.live.list(s.name) : null;
  // a list without rows shows what a row would ask; a sheet that could not be filled yet all that it has
  if (!state.live.isFilled || (list?.list.asked && list.rows.length === 0))
    return html`<div inert>
      ${question({ ...q, from_value: q.from, to_value: q.to, codes: q.codes ?? [], value: null, shown: "" }, [], {}, null)}
    </div>`;
  const why = q.officeOnly ? say("desk.form.officePart") : say("desk.form.notAskedHere");
  return html`<div class="q not-asked">
    <div class="q-head"><span class="q-label">${q.label}</span><span class="q-need">${why}</span></div>
  </div>`;
}

/** One line of the sheet, drawn anew only when something about it is other than it was. */
function line(state, s, q, block, n, draw) {
  const open = q.name === state.openName;
  const chosen = draw.chosen.has(q.name);
  const shown = state.live.shown.get(q.name);
  const here = state.others.filter((o) => o.question === q.name).map((o) => o.person);
  const wrong = draw.problems.get(q.name) ?? [];
  const points = shown
    ? state.live
        .pointsOf(shown)
        .map((p) => p.kind + p.key + p.message)
        .join("|")
    : "";
  const last = draw.after === q.name;
  const known = [
    q,
    shown,
    Boolean(s.rows && state.live.list(s.name)?.rows.length),
    points,
    shown && state.live.isTakenFrom(shown),
    open,
    chosen,
    here.join("|"),
    wrong.map((p) => p.message + p.fix).join("|"),
    last,
    block,
    n,
    state.ruleOpen,
    block?.askWhen ? state.form : "",
    state.live.isFilled,
  ];
  return guard(
    open ? [...known, {}] : known,
    () =>
      html`${block ? blockHead(state, block, n, s.rows ? s.name : "") : nothing}
        <li
          class="form-line annotated"
          data-open=${String(open)}
          data-line=${q.name}
          data-chosen=${String(chosen)}
          data-wired=${q.writesTo ? "true" : nothing}
        >
          <span class="grip" data-grip=${q.name} title=${say("desk.form.grip")} aria-hidden="true"></span>
          <div class="sheet on-sheet">${onSheet(state, q, s)}</div>
          <div class="margin">${margin(state, q, { open, here, wrong })} ${open ? editor(state, q) : nothing}</div>
        </li>
        ${last ? html`<li class="typing-place">${state.typingBox}</li>` : nothing}`,
  );
}

/** When a section or a block is asked, said or edited. */
function askedWhen(state, key, rule = "", put, list = "") {
  const how = {
    id: `asked-${key.replaceAll(" ", "-")}`,
    said: say("desk.form.askWhen"),
    invitation: say("desk.rule.addAskWhen"),
    list,
    type: "condition",
    put,
  };
  const { sentence } = rule ? state.ruleView(list, rule, "condition") : {};
  const told = rule
    ? html`${say("desk.form.askedWhen")} ${sentence ? words(sentence) : html`<span class="code">${rule}</span>`}`
    : say("desk.rule.addAskWhen");
  const open = state.ruleOpen === key;
  return html`<div class="asked-when">
    <button type="button" class="plain" aria-expanded=${String(open)} data-asked=${key} @click=${() => state.openRule(open ? "" : key)}>
      ${told}
    </button>
    ${open ? state.ruleBox(key, rule, how) : nothing}
  </div>`;
}

function blockHead(state, block, n, list) {
  const set = (value) => state.edit({ op: "block.set", section: n, block: block.name, property: "title", value });
  const dissolve = () => state.edit({ op: "block.dissolve", section: n, block: block.name });
  return html`<li class="form-block">
    ${textBox(block.title, set, { class: "flex-1", said: say("desk.form.blockTitle"), part: "block-title" })}
    <button type="button" class="plain" @click=${dissolve}>${say("desk.form.dissolve")}</button>
    ${askedWhen(state, `block ${n} ${block.name}`, block.askWhen, (value) => state.edit({ op: "block.set", section: n, block: block.name, property: "askWhen", value }), list)}
  </li>`;
}

function sectionMenu(state, s, n) {
  const button = (said, op, more = {}) =>
    html`<button type="button" class="plain" @click=${() => state.edit({ op, section: n, ...more })}>${said}</button>`;
  const remove = () => {
    if (s.questions.length === 0 || confirm(say("desk.form.removeSectionSure", { n: s.questions.length })))
      state.edit({ op: "section.remove", section: n });
  };
  // it shuts when something was chosen, or when the focus goes elsewhere
  const shut = (e) => {
    const over =
      e.type === "click"
        ? e.target.closest("button")
        : e.type === "keydown"
          ? e.key === "Escape"
          : !e.currentTarget.contains(e.relatedTarget);
    if (over) e.currentTarget.open = false;
  };
  return html`<details class="form-section-more" @click=${shut} @keydown=${shut} @focusout=${shut}>
    <summary aria-label=${say("desk.form.sectionMore", { title: s.title || say("desk.form.untitled") })}>…</summary>
    <div class="card flex flex-col gap-1 items-start">
      <button type="button" class="plain" data-ask-section=${n} @click=${() => state.openRule(`section ${n}`)}>
        ${say("desk.rule.addAskWhen")}
      </button>
      ${button(s.startsPage ? say("desk.form.noPage") : say("desk.form.beginPage"), "section.set", { property: "startsPage", value: !s.startsPage })}
      ${button(s.rows ? say("desk.form.repeatNoMore") : say("desk.form.letRepeat"), "section.set", { property: "rows", value: s.rows ? null : {} })}
      ${button(say("desk.form.moveUp"), "section.move", { by: -1 })} ${button(say("desk.form.moveDown"), "section.move", { by: 1 })}
      <button type="button" class="plain" @click=${() => state.choose(s.questions.map((q) => q.name))}>
        ${say("desk.form.chooseAll")}
      </button>
      ${button(say("desk.form.dissolve"), "section.dissolve")}
      <button type="button" class="plain" @click=${remove}>${say("desk.form.removeSection")}</button>
    </div>
  </details>`;
}

/** The other rows of a list, as the day book shows them, and adding one. */
function rest(state, list) {
  const one = (q) => question(q, state.live.pointsOf(q), state.live.act, state.live.taken());
  return html`<div class="sheet on-sheet">
    ${list.rows.slice(1).map((r, i) => oneRow(list, r, i + 1, state.live.act, one))}
    ${list.list.asked ? addingRows(list, state.live.pointsOf({ name: list.name }), state.live.act) : nothing}
  </div>`;
}

/** @param {any} state @param {any} s @param {number} n @param {any} draw */
function section(state, s, n, draw) {
  const folded = state.folded.has(n);
  const set = (property) => (value) => state.edit({ op: "section.set", section: n, property, value });
  const troubled = folded && s.questions.some((q) => draw.problems.has(q.name));
  const ruled = folded && s.questions.some((q) => q.askWhen || q.checks?.length || q.workOut);
  const list = s.rows ? state.live.list(s.name) : null;
  const repeats = list?.rows.length > 1 ? say("desk.form.firstRowOf", { n: list.rows.length }) : say("desk.form.repeats");
  /** @type {any} */
  let block = null;
  const titled = (q) => {
    const own = (s.blocks ?? []).find((b) => b.name === q.block) ?? null;
    const begins = own !== block ? own : null;
    block = own;
    return begins;
  };
  const typedHere = draw.section === n && (folded || !draw.after);
  return html`<section class="form-section" data-section=${n}>
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
      ${s.rows ? html`<span class="chip">${repeats}</span>` : nothing}
      ${folded ? html`<span class="quiet">${say("desk.form.foldedHas", { n: s.questions.length })}</span>` : nothing}
      ${ruled ? html`<span class="chip">${say("desk.form.hasRules")}</span>` : nothing}
      ${troubled ? html`<span class="chip trouble">${say("desk.form.toMend")}</span>` : nothing} ${sectionMenu(state, s, n)}
    </div>
    ${s.rows && !folded ? rowsOf(state, s, n) : nothing}
    ${s.askWhen || state.ruleOpen === `section ${n}` ? askedWhen(state, `section ${n}`, s.askWhen, set("askWhen")) : nothing}
    ${
      folded
        ? nothing
        : html`${list?.rows.length ? html`<div class="sheet-row first-row">${rowHead(list.rows[0], 0, state.live.act)}</div>` : nothing}
            <ol class=${list?.rows.length ? "in-row" : ""}>
              ${repeat(
                s.questions,
                (q) => q.name,
                (q) => line(state, s, q, titled(q), n, draw),
              )}
            </ol>
            ${list ? rest(state, list) : nothing}`
    }
    ${typedHere ? html`<div class="typing-place">${state.typingBox}</div>` : nothing}
  </section>`;
}

/** @param {any} state */
export function questions(state) {
  const problems = new Map();
  for (const p of state.problems) problems.set(p.question, [...(problems.get(p.question) ?? []), p]);
  const draw = { ...state.place, chosen: new Set(state.chosen), problems };
  const empty = state.questions.length === 0;
  return html`${several(state)}
    <div id="questions" @keydown=${(e) => state.key(e)}>
      ${empty ? html`<p class="told">${say("desk.form.firstStep")}</p>` : nothing}
      ${state.form.sections.map((s, n) => section(state, s, n, draw))} ${state.form.sections.length === 0 ? state.typingBox : nothing}
    </div>`;
}
