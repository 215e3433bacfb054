// The line in which questions are typed: what was understood stands under it while it is typed; several lines pasted at once become several questions.
import { say, words } from "../../shell/say.js";
import { drawn, guard, html, live, nothing } from "../../shell/view.js";
import { kinds } from "./kinds.js";

/** The named lines that can't be read stay in the box, to be mended. */
function split(text, read) {
  const broken = new Set(read.filter((r) => r.problem).map((r) => r.number));
  const lines = text.split(/\r\n|\r|\n/);
  return {
    good: lines.filter((_, i) => !broken.has(i + 1)).join("\n"),
    left: lines.filter((_, i) => broken.has(i + 1)).join("\n"),
  };
}

function understood(state, r, many) {
  const field = r.name && state.looseField(r.name);
  const all = r.problem ? [words(r.problem)] : r.understood.map(words);
  if (field) all.push(say("desk.form.writesTo", { field }));
  return html`<li class=${r.problem ? "line-problem" : ""}>
    ${many ? html`<span class="quiet">${r.number}</span> ` : nothing}${all.join(", ")}
  </li>`;
}

/**
 * The line, in an element of its own that is moved to where the next question goes: what is typed draws nothing but itself.
 * @param {any} state
 */
export function typingBox(state) {
  const box = document.createElement("div");
  const draw = drawn(box, () => typingLine(state, () => draw.now()));
  return { box, draw };
}

/** Reads some lines while nobody waits, so that the first keys are understood as quickly as later ones. @param {any} state */
export function readBefore(state) {
  const lines = EXAMPLES.map(([line]) => line);
  const some = (deadline) => {
    while (lines.length && deadline.timeRemaining() > 3) state.understood(lines.pop());
    if (lines.length) window.requestIdleCallback(some);
  };
  window.requestIdleCallback(some);
}

function typingLine(state, again) {
  const { after, section } = state.place;
  const behind = after ? state.labelOf(after) : (state.form.sections[section]?.title ?? "");
  const typed = state.typed;
  const read = typed.trim() ? state.understood(typed) : [];
  const good = read.filter((r) => !r.problem).length;
  const put = (e) => {
    state.typed = e.target.value;
    again();
  };
  const add = async (e) => {
    e?.preventDefault();
    if (!good) return;
    const { good: text, left } = split(typed, read);
    await state.typeLines(text);
    if (state.failure) return;
    state.typed = left;
    state.changed();
    document.getElementById("typing")?.focus();
  };
  const keys = (e) => {
    if (e.key === "Enter" && !e.shiftKey && !e.isComposing) add(e);
    else if (e.key === "Escape" && typed) {
      state.typed = "";
      again();
    } else return;
    e.preventDefault();
    e.stopPropagation();
  };
  const rows = Math.max(1, Math.min(8, typed.split("\n").length));
  return html`<form class="typing" @submit=${add}>
    <label class="label" for="typing">${behind ? say("desk.form.typeAfter", { label: behind }) : say("desk.form.typeAtEnd")}</label>
    <div class="flex gap-2 items-start flex-wrap">
      <textarea
        class="flex-1 code"
        id="typing"
        data-key="t"
        rows=${rows}
        autocomplete="off"
        spellcheck="false"
        placeholder=${say("desk.form.typeLike")}
        aria-describedby="understood"
        .value=${live(typed)}
        @input=${put}
        @keydown=${keys}
      ></textarea>
      <button type="submit" class="main" ?disabled=${good === 0}>${say("desk.form.addLines", { n: Math.max(1, good) })}</button>
      <button type="button" id="choose-kind" aria-expanded=${String(state.kindsShown)} @click=${() => state.showKinds(!state.kindsShown)}>
        ${say("desk.form.chooseKind")}
      </button>
    </div>
    <ul id="understood" role="status">
      ${read.slice(0, 12).map((r) => understood(state, r, read.length > 1))}
      ${read.length > 12 ? html`<li class="quiet">${say("desk.form.moreLines", { n: read.length - 12 })}</li>` : nothing}
    </ul>
    ${kinds(state)} ${guard([], help)}
  </form>`;
}

const help = () =>
  html`<details id="line-help" class="quiet">
    <summary>${say("desk.form.lineHelp")}</summary>
    <table>
      <tbody>
        ${EXAMPLES.map(
          ([line, key]) =>
            html`<tr>
              <td class="code">${line}</td>
              <td>${say(key)}</td>
            </tr>`,
        )}
      </tbody>
    </table>
  </details>`;

/** @type {[string, import("../../shell/say.js").MessageKey][]} */
const EXAMPLES = [
  ["Silt depth (mm) 0..500 *", "desk.line.number"],
  ["Level 0.00..5.00", "desk.line.decimal"],
  ["Lining: brick | timber | clay", "desk.line.choice"],
  ["Lining: 1 = brick | 2 = timber", "desk.line.codes"],
  ["Defects: + crack | leak | scour", "desk.line.choices"],
  ["Condition: good < fair < poor", "desk.line.grade"],
  ["Photo of the outfall x1..3", "desk.line.photo"],
  ["Locked: yes/no", "desk.line.kind"],
  ["Notes: long text ..2000 // what else was seen", "desk.line.hint"],
  ["Silt depth {silt}", "desk.line.name"],
  ["Width (m) (*)", "desk.line.wanted"],
  ["> Mind the current.", "desk.line.read"],
  ["# Section", "desk.line.section"],
  ["# Defects x0..20 again", "desk.line.list"],
  ["## Block", "desk.line.block"],
  ["--- page", "desk.line.page"],
  ["\\|", "desk.line.escape"],
];
