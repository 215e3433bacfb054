// The layer's fields, wired to the questions that ask for them; one that is not becomes a question by a click.
import { say } from "../../shell/say.js";
import { html, nothing } from "../../shell/view.js";

/** From so many fields on they can be searched. */
const SEARCHED = 8;

/** @param {any} state */
export function wiring(state) {
  const by = new Map(state.questions.filter((q) => q.writesTo).map((q) => [q.writesTo, q]));
  const wanted = state.fieldSought.toLowerCase();
  const fields = state.schema.fields.filter((f) => `${f.label} ${f.name}`.toLowerCase().includes(wanted));
  const loose = fields.filter((f) => !by.has(f.name) && !f.officeOnly);
  const seek = (e) => {
    state.fieldSought = e.target.value;
    state.changed();
  };
  return html`<h2 class="mb-1">${say("desk.form.wiring")}</h2>
    ${
      state.schema.fields.length >= SEARCHED
        ? html`<input
            type="search"
            class="w-full mb-2"
            id="field-sought"
            aria-label=${say("desk.form.seekField")}
            placeholder=${say("desk.form.seekField")}
            .value=${state.fieldSought}
            @input=${seek}
          />`
        : nothing
    }
    <ul class="wires">
      ${fields.map((f) => wire(state, f, by.get(f.name)))}
    </ul>
    ${
      loose.length > 1
        ? html`<p class="mt-2">
            <button type="button" id="wire-all" @click=${() => state.wire(loose)}>${say("desk.form.wireAll", { n: loose.length })}</button>
          </p>`
        : nothing
    }`;
}

function wire(state, f, question) {
  const name = f.label || f.name;
  if (question)
    return html`<li class="wired">
      <button
        type="button"
        class="plain"
        @click=${() => state.open(question.name)}
        aria-label=${say("desk.form.wiredTo", { field: name, label: question.label })}
      >
        <span class="dot" aria-hidden="true"></span>${name}
      </button>
    </li>`;
  if (f.officeOnly)
    return html`<li class="quiet">
      <span class="dot" aria-hidden="true"></span>${name} <span class="chip">${say("desk.form.officeField")}</span>
    </li>`;
  return html`<li>
    <button
      type="button"
      class="plain"
      data-wire=${f.name}
      @click=${() => state.wire([f])}
      aria-label=${say("desk.form.wireOf", { field: name })}
    >
      <span class="dot" aria-hidden="true"></span>${name} <span class="quiet">${say("desk.form.addIt")}</span>
    </button>
  </li>`;
}
