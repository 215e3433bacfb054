// The line in which questions are typed: what was understood stands under it while it is typed; several lines pasted at once become several questions.
import { say, words } from "../../shell/say.js";
import { html, live, nothing } from "../../shell/view.js";

/** The named lines that can't be read stay in the box, to be mended. */
function split(text, read) {
  const broken = new Set(read.filter((r) => r.problem).map((r) => r.number));
  const lines = text.split(/\r\n|\r|\n/);
  return {
    good: lines.filter((_, i) => !broken.has(i + 1)).join("\n"),
    left: lines.filter((_, i) => broken.has(i + 1)).join("\n"),
  };
}

const understood = (r, many) =>
  html`<li class=${r.problem ? "line-problem" : ""}>
    ${many ? html`<span class="quiet">${r.number}</span> ` : nothing}${r.problem ? words(r.problem) : r.understood.map(words).join(", ")}
  </li>`;

/** @param {any} state @param {string} after the question behind which it stands, "" for the end of the section @param {number} section */
export function typingLine(state, after, section) {
  const typed = state.typed;
  const read = typed.trim() ? state.understood(typed) : [];
  const good = read.filter((r) => !r.problem).length;
  const put = (e) => {
    state.typed = e.target.value;
    state.changed();
  };
  const add = async (e) => {
    e?.preventDefault();
    if (!good) return;
    const { good: text, left } = split(typed, read);
    const before = new Set(state.questions.map((q) => q.name));
    await state.edit({ op: "type", text, section, after });
    if (state.failure) return;
    state.typed = left;
    // the next line goes behind what was just added
    const added = state.questions.filter((q) => !before.has(q.name));
    if (added.length) state.choose([added.at(-1).name]);
    state.changed();
    document.getElementById("typing")?.focus();
  };
  const keys = (e) => {
    if (e.key === "Enter" && !e.shiftKey && !e.isComposing) add(e);
    else if (e.key === "Escape" && typed) {
      state.typed = "";
      state.changed();
    } else return;
    e.preventDefault();
    e.stopPropagation();
  };
  return html`<form class="typing" @submit=${add}>
    <label class="label" for="typing"
      >${after ? say("desk.form.typeAfter", { label: state.labelOf(after) }) : say("desk.form.typeAtEnd")}</label
    >
    <div class="flex gap-2 items-start">
      <textarea
        class="flex-1 code"
        id="typing"
        rows=${Math.min(8, typed.split("\n").length)}
        autocomplete="off"
        spellcheck="false"
        placeholder=${say("desk.form.typeLike")}
        aria-describedby="understood"
        .value=${live(typed)}
        @input=${put}
        @keydown=${keys}
      ></textarea>
      <button type="submit" class="main" ?disabled=${good === 0}>${say("desk.form.addLines", { n: Math.max(1, good) })}</button>
    </div>
    <ul id="understood" role="status">
      ${read.slice(0, 12).map((r) => understood(r, read.length > 1))}
      ${read.length > 12 ? html`<li class="quiet">${say("desk.form.moreLines", { n: read.length - 12 })}</li>` : nothing}
    </ul>
    ${help()}
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
