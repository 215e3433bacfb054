// The rules of one question: when it is asked, what must hold, how it is worked out, what it begins with.
import { check, textBox } from "../../shell/controls.js";
import { say, words } from "../../shell/say.js";
import { html, nothing, repeat } from "../../shell/view.js";
import { sources } from "./sources.js";
import { trouble } from "./trouble.js";

/** Of more checks than these each is its sentence, and is opened to be edited. */
const FEW = 6;

/** @param {any} state @param {any} q */
export function rules(state, q) {
  const put = (property) => (text) => state.set(property, text);
  const list = state.listOf(q.name);
  const notes = (property, index) => state.notes.filter((n) => n.question === q.name && n.property === property && n.index === index);
  const ask = {
    notes: notes("askWhen"),
    id: "e-ask",
    said: say("desk.form.askWhen"),
    invitation: say("desk.rule.addAskWhen"),
    list,
    type: "condition",
    put: put("askWhen"),
  };
  const work = {
    id: "e-work",
    said: say("desk.form.workOut"),
    invitation: say("desk.rule.addWorkOut"),
    list,
    type: "",
    put: put("workOut"),
  };
  return html`${state.ruleBox("askWhen", q.askWhen ?? "", ask)}
    <div id="e-checks">
      ${repeat(
        q.checks ?? [],
        (_, i) => i,
        (c, i) => {
          const about = { list, notes: notes("checks", i) };
          return isFolded(state, q, c, i, about) ? foldedCheck(state, c, i, about) : oneCheck(state, q, c, i, about);
        },
      )}
      ${notes("checks").map((n) => html`<p class="told" data-note>${n.message}</p>`)}
      <button class="plain" type="button" id="add-check" @click=${() => state.addCheck()}>${say("desk.form.addCheck")}</button>
    </div>
    ${state.ruleBox("workOut", q.workOut ?? "", work)} ${q.type === "read" || q.type === "picture" ? nothing : sources(state, q)}
    ${state.problemsOf(q.name).map((p) => html`<div class="point firm">${trouble(state, p)}</div>`)}`;
}

function isFolded(state, q, c, i, { notes }) {
  const wrong = state.problemsOf(q.name).some((p) => p.property === "checks" && p.index === i);
  return q.checks.length > FEW && c.rule && !notes.length && !wrong && !state.openChecks.has(i);
}

function foldedCheck(state, c, i, { list }) {
  const { sentence } = state.ruleView(list, c.rule, "condition");
  return html`<p class="mb-1 ps-2 border-s-2 border-mist" data-check=${i}>
    <button type="button" class="plain text-start" aria-expanded="false" data-open-check=${i} @click=${() => state.openCheck(i)}>
      ${sentence ? words(sentence) : html`<span class="code">${c.rule}</span>`}${c.message ? `: ${c.message}` : ""}
    </button>
  </p>`;
}

function oneCheck(state, q, c, i, { list, notes }) {
  const put = (part) => (v) => state.setCheck(i, part, v.trim());
  const rule = (text) => (text ? state.setCheck(i, "rule", text) : state.removeCheck(i));
  const how = { id: `e-check-${i}`, said: say("desk.form.checkRule"), self: q.name, list, notes, type: "condition", put: rule };
  const view = c.rule ? state.ruleView(list, c.rule, "condition") : {};
  const proposed = view.sentence ? say("desk.rule.proposed", { sentence: words(view.sentence) }) : say("desk.form.messageLike");
  const soft = check(say("desk.form.onlyAsks"), c.weight === "soft", (on) => state.setCheck(i, "weight", on ? "soft" : "firm"));
  const about = { class: "w-full", said: say("desk.form.message"), placeholder: proposed, part: "message" };
  return html`<div class="grid gap-1 mb-2 ps-2 border-s-2 border-mist" data-check=${i}>
    ${state.ruleBox(`check ${i}`, c.rule, how)} ${textBox(c.message, put("message"), about)}
    <p class="flex gap-4 items-center"><label class="flex items-center gap-2">${soft}</label></p>
  </div>`;
}
