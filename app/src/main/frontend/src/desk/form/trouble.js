// What is wrong with a question, and what mends it with one click.
import { say } from "../../shell/say.js";
import { html, nothing } from "../../shell/view.js";

/** @param {any} state @param {any} p a problem as the engine tells it */
export function trouble(state, p) {
  const cure = () =>
    html`<button class="plain" type="button" @click=${() => state.cure(p)}>
      ${say("desk.form.put")} <span class="code">${p.fix}</span>
    </button>`;
  const drop = () =>
    html`<button class="plain" type="button" data-drop=${p.property} @click=${() => state.drop(p)}>${say("desk.form.dropRule")}</button>`;
  return html`<span>${p.part}: ${p.message}</span> ${state.canCure(p) ? cure() : nothing} ${state.canDrop(p) ? drop() : nothing}`;
}
