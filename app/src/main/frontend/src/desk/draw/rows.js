// Typing the rows of a layer without places: new ones, other values, rows taken away. Nothing is written before the button says so.
import { loadEngine } from "../../shell/engine.js";
import { number } from "../../shell/styles.js";
import { say } from "../../shell/say.js";
import { getJson } from "../../shell/server.js";
import { drawn, html, nothing, repeat } from "../../shell/view.js";
import { Edits, Unfit } from "./edits.js";
import { writingFoot } from "./foot.js";
import { valuesForm } from "./values-form.js";

const MOST_LISTED = 200;

class Rows {
  /** @type {string} */
  base;
  /** @type {any} */
  schema;
  /** @type {(anew?: boolean) => void} */
  changed;
  /** @type {any} */
  edits;
  rows = [];
  current = null;
  found = "";
  failure = "";
  told = "";
  busy = false;

  constructor({ base, edits, schema, changed }) {
    Object.assign(this, { base, edits, schema, changed });
  }
  async load() {
    this.rows = (await getJson(`${this.base}/features`)).features;
  }
  captionOf(e) {
    const named = this.schema.captionFields?.length ? this.schema.captionFields : [this.schema.tagField];
    const said = named.map((n) => e.typed?.[n] ?? e.stood?.[n] ?? "").filter(Boolean);
    return said.join(" · ") || say("desk.rows.aNew");
  }
  choose(feature) {
    this.current = feature;
    this.changed(true);
  }
  add() {
    this.edits.keep(this.current);
    const feature = { id: crypto.randomUUID(), isNew: true, stood: {} };
    this.edits.put(feature, {});
    this.told = "";
    this.choose(feature);
  }
  undo() {
    const was = this.edits.undo();
    if (was) this.choose(was.page);
  }
  value(feature, name, typed, again) {
    if (!again) this.edits.keep(this.current);
    this.told = "";
    this.edits.type(feature, name, typed);
    this.changed();
  }
  /** Takes the row in hand away, or keeps it after all. */
  turn() {
    const e = this.edits.of(this.current);
    this.edits.keep(this.current);
    if (e.isNew) {
      this.edits.all.delete(e.id);
      this.current = null;
    } else this.edits.put(this.current, { removed: !e.removed });
    this.changed();
  }
  async write() {
    Object.assign(this, { failure: "", busy: true });
    this.changed();
    try {
      const n = await this.edits.write();
      this.current = null;
      this.told = say("desk.rows.written", { n });
      await this.load();
    } catch (e) {
      if (e instanceof Unfit) this.current = this.edits.get(e.id);
      this.failure = e.message;
    }
    this.busy = false;
    this.changed();
  }
}

function line(state, feature, caption, note) {
  const on = state.current?.id === feature.id;
  return html`<li>
    <button type="button" class="plain" data-row=${feature.id} aria-pressed=${String(on)} @click=${() => state.choose(feature)}>
      ${caption}${note ? html`<span class="quiet"> ${note}</span>` : nothing}
    </button>
  </li>`;
}

function list(state) {
  const { rows, edits } = state;
  const wanted = state.found.trim().toLowerCase();
  const fresh = [...edits.all.values()].filter((e) => e.isNew);
  const there = rows.filter((r) => (r.caption ?? "").toLowerCase().includes(wanted));
  const note = (r) => (edits.get(r.id)?.removed ? say("desk.rows.willGo") : edits.get(r.id) ? say("desk.rows.changed") : "");
  const known = (r) => line(state, { id: r.id, version: r.version, stood: r.properties }, r.caption || say("desk.noCaption"), note(r));
  const find = (e) => {
    state.found = e.target.value;
    state.changed();
  };
  const longer = html`<p class="quiet">${say("desk.firstOf", { n: MOST_LISTED, of: there.length })}</p>`;
  return html`<div class="flex justify-between items-baseline">
      <h2>${say("desk.rows.title")}</h2>
      <span class="quiet">${say("desk.rows.count", { n: number(rows.length) })}</span>
    </div>
    <p class="my-2"><button type="button" id="new-row" @click=${() => state.add()}>${say("desk.rows.new")}</button></p>
    <p><input class="w-full" type="search" aria-label=${say("desk.rows.find")} placeholder=${say("desk.rows.find")} @input=${find} /></p>
    <ul class="max-h-[50dvh] overflow-y-auto">
      ${repeat(
        fresh,
        (e) => e.id,
        (e) => line(state, e, state.captionOf(e), say("desk.rows.notWritten")),
      )}
      ${repeat(there.slice(0, MOST_LISTED), (r) => r.id, known)}
    </ul>
    ${there.length > MOST_LISTED ? longer : nothing}`;
}

function form(state) {
  const { current, edits, schema, rows } = state;
  if (!current) {
    const first = rows.length === 0 && edits.count === 0;
    return html`<p class="quiet">${first ? say("desk.rows.noneYet") : say("desk.rows.choose")}</p>`;
  }
  const e = edits.of(current);
  const values = () =>
    valuesForm({
      id: e.id,
      schema,
      typed: e.typed,
      stood: e.stood ?? {},
      isNew: e.isNew,
      faults: edits.faults[e.id] ?? {},
      changed: (name, typed, again) => state.value(current, name, typed, again),
    });
  const turn = e.removed ? say("desk.rows.keep") : say("desk.rows.takeAway");
  return html`<div class="flex justify-between gap-2">
      <h2>${state.captionOf(e)}</h2>
      <button type="button" class="plain" @click=${() => state.turn()}>${turn}</button>
    </div>
    ${e.removed ? html`<p>${say("desk.draw.willGo")}</p>` : values()}`;
}

/** @param {HTMLElement} box */
export async function rowsPage(box) {
  const { project, layer } = box.dataset;
  const schema = JSON.parse(box.dataset.schema ?? "{}");
  const base = `/api/p/${project}/layers/${layer}`;
  const edits = new Edits({ base, engine: await loadEngine(), schema });
  const state = /** @type {any} */ (new Rows({ base, edits, schema, changed: (anew = false) => draw(anew) }));
  const footOf = () => ({
    ...{ count: edits.count, canUndo: edits.undone.can, told: state.told, failure: state.failure, busy: state.busy },
    ...{ write: () => state.write(), undo: () => state.undo(), label: /** @type {const} */ ("desk.rows.write") },
  });
  const all = drawn(
    box,
    () =>
      html`<div class="beside narrow-first items-start">
          <div class="card">${list(state)}</div>
          <div class="card" id="row-form">${form(state)}</div>
        </div>
        ${writingFoot(footOf())}`,
  );
  const draw = (anew) => {
    all();
    if (anew) /** @type {HTMLElement} */ (box.querySelector("#row-form input, #row-form select"))?.focus();
  };
  addEventListener("beforeunload", (e) => {
    if (edits.count > 0) e.preventDefault();
  });
  await state.load();
  draw(false);
  box.dataset.ready = "true";
}
