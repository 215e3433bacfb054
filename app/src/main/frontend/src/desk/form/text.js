// The whole form as text: read, edited, compared and pasted; what a line can't say is kept.
import { say, words } from "../../shell/say.js";
import { html, live, nothing } from "../../shell/view.js";

/** What differs, line by line: those that are new and those that are gone. */
function compared(before, after) {
  const count = (text) => {
    const n = new Map();
    for (const l of text.split("\n").filter(Boolean)) n.set(l, (n.get(l) ?? 0) + 1);
    return n;
  };
  const [a, b] = [count(before), count(after)];
  const over = (x, y) => [...x].flatMap(([l, n]) => Array(Math.max(0, n - (y.get(l) ?? 0))).fill(l));
  return { gone: over(a, b), fresh: over(b, a) };
}

const problem = (p) =>
  html`<li class="line-problem">${say("desk.form.lineN", { n: p.number })} ${words(p.why)} <span class="code">${p.line}</span></li>`;

/** @param {any} state */
export function formText(state) {
  const now = state.textNow();
  const text = state.text ?? now;
  const read = text === now ? { form: state.form } : state.readText(text);
  const diff = compared(now, text);
  const put = (e) => {
    state.text = e.target.value;
    state.changed();
  };
  const keep = async () => {
    await state.edit({ op: "text", text });
    if (!state.failure) state.showView("sheet");
  };
  const changes = [...diff.gone.map((l) => ["- ", l]), ...diff.fresh.map((l) => ["+ ", l])];
  return html`<div id="form-text">
    <label class="label" for="text">${say("desk.form.textHow")}</label>
    <textarea class="w-full code" id="text" rows="24" spellcheck="false" .value=${live(text)} @input=${put}></textarea>
    ${
      read.problems
        ? html`<ul role="alert">
            ${read.problems.slice(0, 10).map(problem)}
          </ul>`
        : nothing
    }
    ${
      changes.length && !read.problems
        ? html`<details open>
            <summary>${say("desk.form.textChanges", { n: changes.length })}</summary>
            <ul class="code">
              ${changes.slice(0, 40).map(([sign, l]) => html`<li>${sign} ${l}</li>`)}
            </ul>
          </details>`
        : nothing
    }
    <p class="flex gap-2 mt-2">
      <button type="button" class="main" id="keep-text" ?disabled=${Boolean(read.problems) || text === now} @click=${keep}>
        ${say("desk.form.keepText")}
      </button>
      <button type="button" @click=${() => state.showView("sheet")}>${say("desk.form.leaveText")}</button>
    </p>
  </div>`;
}
