// What keeps a form from being published, and what is worth knowing of it.
import { say } from "../../shell/say.js";
import { html, nothing } from "../../shell/view.js";

function told(state, all) {
  const one = (p) =>
    html`<li>
      ${
        p.question
          ? html`<button class="plain" type="button" data-name=${p.question} @click=${() => state.goTo(p.question)}>
              ${state.labelOf(p.question)}
            </button>`
          : nothing
      }
      ${p.part}: ${state.placeOf(p) ? html`<span class="code">${state.placeOf(p)}</span>, ` : nothing}${p.message}
    </li>`;
  return html`<ul>
    ${all.map(one)}
  </ul>`;
}

/** @param {any} state */
export function report(state) {
  const wrong = () =>
    html`<div class="problem" id="form-problems">
      <p>${say("desk.form.keepsFrom", { n: state.problems.length })}</p>
      ${told(state, state.problems)}
    </div>`;
  const notes = () =>
    html`<details class="told" id="form-notes">
      <summary>${say("desk.form.worthKnowing")} (${state.notes.length})</summary>
      ${told(state, state.notes)}
    </details>`;
  // an empty sheet says itself what comes first
  const begun = state.questions.length > 0;
  return html`<p class="problem" role="alert" ?hidden=${!state.failure}>${state.failure}</p>
    ${state.isSound || !begun ? nothing : wrong()}${state.notes.length ? notes() : nothing}`;
}
