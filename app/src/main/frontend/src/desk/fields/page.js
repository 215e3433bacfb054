// The page of a layer's fields: edit, see what it would do, change.
import { say } from "../../shell/say.js";
import { getJson, post } from "../../shell/server.js";
import { drawn, html, nothing } from "../../shell/view.js";
import { fieldsEditor } from "./editor.js";

function effect(e) {
  const which = () =>
    html`<details>
      <summary>${say("desk.effects.which")}</summary>
      <ul>
        ${e.told.map((t) => html`<li>${say("desk.effects.one", { feature: t.caption || t.feature, value: t.value })}</li>`)}
      </ul>
    </details>`;
  const count = e.count > 0 ? say("desk.effects.count", { n: e.count }) : "";
  return html`<li class="py-1"><strong>${e.field}</strong> ${e.said}${count}${e.told.length > 0 ? which() : nothing}</li>`;
}

function effects(p, change) {
  return html`<section class="card" id="effects">
    <h2 class="mb-2">${say("desk.effects.title")}</h2>
    ${
      p.effects.length === 0
        ? html`<p>${say("desk.effects.none")}</p>`
        : html`<ul>
            ${p.effects.map(effect)}
          </ul>`
    }
    ${p.uses.length > 0 ? html`<p class="told mt-2">${say("desk.effects.uses", { what: p.uses.join("; ") })}</p>` : nothing}
    <p class="mt-3"><button type="button" class="main" id="fields-change" @click=${change}>${say("desk.effects.change")}</button></p>
    <p class="quiet mt-1">${say("desk.effects.canBack")}</p>
  </section>`;
}

/** @param {HTMLElement} box */
export async function fieldsPage(box) {
  const { project = "", layer = "" } = box.dataset;
  const base = `/api/p/${project}/layers/${layer}`;
  const readOnly = box.dataset.may !== "true";
  const [schema, names] = await Promise.all([getJson(`${base}/schema`), getJson(`/api/p/${project}/layer-names`)]);
  const others = names.filter((l) => l.id !== layer);
  const editor = document.createElement("div");
  const state = { changed: false, told: /** @type {unknown} */ (nothing) };
  const fail = (e) => {
    state.told = html`<p class="problem" role="alert">${e.message}</p>`;
    draw();
  };
  const change = (seen) => async () => {
    try {
      await post(`${base}/fields`, { schema: made.schema(), seen });
      location.reload();
    } catch (e) {
      fail(e);
    }
  };
  const preview = async () => {
    try {
      const p = await post(`${base}/fields/preview`, { schema: made.schema() });
      state.told = effects(p, change(p.seen));
      draw();
    } catch (e) {
      fail(e);
    }
  };
  const draw = drawn(
    box,
    () =>
      html`${editor}
        <p class="mb-3">
          <button type="button" id="fields-preview" ?hidden=${!state.changed} @click=${preview}>${say("desk.effects.see")}</button>
        </p>
        <div aria-live="polite">${state.told}</div>`,
  );
  draw.now();
  const changed = () => {
    Object.assign(state, { changed: true, told: nothing });
    draw();
  };
  const made = await fieldsEditor(editor, { project, layer, schema, others, fixed: schema.fields.map((f) => f.name), readOnly, changed });
  box.dataset.ready = "true";
}
