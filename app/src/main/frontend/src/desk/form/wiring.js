// The layer's fields, wired to the questions that ask for them; one that is not becomes a question by a click.
import { say } from "../../shell/say.js";
import { html, nothing } from "../../shell/view.js";

/** From so many fields on they can be searched. */
const SEARCHED = 8;

/** @type {Record<string, import("../../shell/say.js").MessageKey>} */
const FIELD_TYPES = {
  text: "fieldType.text",
  whole: "fieldType.whole",
  decimal: "fieldType.decimal",
  yes_no: "fieldType.yes_no",
  date: "fieldType.date",
  time: "fieldType.time",
  date_time: "fieldType.date_time",
  code: "fieldType.code",
  codes: "fieldType.codes",
  unique_id: "fieldType.unique_id",
};

/** How full a field is, as a share of all features. */
function full(state, f) {
  const n = state.filled[f.name];
  return n === undefined || state.features === 0 ? "" : `, ${say("desk.form.full", { share: n / state.features })}`;
}

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
  if (!state.layer) return unmade(state);
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

/** A form that was begun before its layer. */
function unmade(state) {
  return html`<h2 class="mb-1">${say("desk.form.wiring")}</h2>
    <p class="quiet mb-2">${say("desk.form.noLayerYet")}</p>
    <p>
      <a class="button" id="make-layer" href=${`/p/${state.project}/forms/${state.base.split("/").at(-1)}/layer`}
        >${say("desk.form.makeLayer")}</a
      >
    </p>`;
}

/** How full a field is, and of which type. */
const about = (f) => [say(FIELD_TYPES[f.type] ?? "fieldType.text"), f.unit].filter(Boolean).join(", ");

function wire(state, f, question) {
  const name = f.label || f.name;
  if (question)
    return html`<li class="wired">
      <button
        type="button"
        class="plain"
        @click=${() => state.goTo(question.name)}
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
      <span class="dot" aria-hidden="true"></span>${name}<span class="quiet about">${about(f)}${full(state, f)}</span>
    </button>
  </li>`;
}
