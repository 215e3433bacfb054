// The messages of a form's checks: each once, changed everywhere, with the checks that tell it.
import { textBox } from "../../shell/controls.js";
import { say } from "../../shell/say.js";
import { html, repeat } from "../../shell/view.js";

/** All messages in the order of the sheet. @returns {{text: string, of: {q: any, index: number}[]}[]} */
export function messagesOf(questions) {
  /** @type {Map<string, {q: any, index: number}[]>} */
  const all = new Map();
  for (const q of questions)
    (q.checks ?? []).forEach((c, index) => {
      if (c.message) all.set(c.message, [...(all.get(c.message) ?? []), { q, index }]);
    });
  return [...all].map(([text, of]) => ({ text, of }));
}

/** The edits that make another message of one, wherever it is told. */
export function reworded(of, message) {
  return [...new Set(of.map(({ q }) => q))].map((q) => {
    const own = of.filter((x) => x.q === q).map((x) => x.index);
    const value = q.checks.map((c, i) => (own.includes(i) ? { ...c, message } : c));
    return { op: "set", question: q.name, property: "checks", value };
  });
}

/** @param {any} state */
export function messages(state) {
  const all = messagesOf(state.questions);
  const one = ({ text, of }) => {
    const set = (v) => v.trim() && state.edit({ op: "several", edits: reworded(of, v.trim()) });
    return html`<li class="card grid gap-1" data-message=${text}>
      ${textBox(text, set, { class: "w-full", said: say("desk.shared.message") })}
      <p>
        ${say("desk.shared.usedIn")}
        <span class="rule-which">
          ${of.map(
            ({ q, index }) =>
              html`<button type="button" class="plain" @click=${() => state.goTo(q.name)}>
                ${q.label} <span class="quiet">${say("desk.shared.checkOf", { n: index + 1 })}</span>
              </button>`,
          )}
        </span>
      </p>
    </li>`;
  };
  return html`<section id="shared-messages">
    <h3>${say("desk.shared.messages")}</h3>
    <p class="quiet">${say("desk.shared.messagesAre")}</p>
    <ul class="grid gap-2">
      ${repeat(all, (m) => m.text, one)}
    </ul>
  </section>`;
}
