// Typing the rows of a layer without places: new ones, other values, rows taken away. Nothing is written before the button says so.
import { request } from "./api.js";
import { Edits, Unfit, writingFoot } from "./desk-edits.js";
import { afterPress, h } from "./dom.js";
import { loadEngine } from "./engine.js";
import { valuesForm } from "./values-form.js";

const MOST_LISTED = 200;

export async function rowsPage(box) {
  const { project, layer } = box.dataset;
  const schema = JSON.parse(box.dataset.schema);
  const base = `/api/p/${project}/layers/${layer}`;
  const edits = new Edits({ base, engine: await loadEngine(), schema });
  let rows = [];
  let current = null;
  let found = "";
  let failure = "";
  let told = "";

  const list = h("div", { class: "card" });
  const form = h("div", { class: "card" });
  const foot = writingFoot({ write: () => write(), undo: () => undo(), one: "row", many: "rows" });
  box.replaceChildren(h("div", { class: "grid gap-4 lg:grid-cols-[340px_1fr] items-start" }, list, form), foot.element);

  async function load() {
    rows = (await (await request(`${base}/features`)).json()).features;
  }
  const captionOf = (e) => {
    const named = schema.captionFields?.length ? schema.captionFields : [schema.tagField];
    return named.map((n) => e.typed?.[n] ?? e.stood?.[n] ?? "").filter(Boolean).join(" · ") || "A new row";
  };

  function choose(feature) {
    current = feature;
    render();
    form.querySelector("input, select")?.focus();
  }
  function add() {
    edits.keep(current);
    const feature = { id: crypto.randomUUID(), isNew: true, stood: {} };
    edits.put(feature, {});
    told = "";
    choose(feature);
  }
  function undo() {
    const was = edits.undo();
    if (was) choose(was.page);
  }
  async function write() {
    failure = "";
    foot.busy();
    try {
      const n = await edits.write();
      current = null;
      told = `Written: ${n} ${n === 1 ? "row" : "rows"}. It can be taken back as a whole in the layer's history.`;
      await load();
    } catch (e) {
      if (e instanceof Unfit) current = edits.get(e.id);
      failure = e.message;
    }
    render();
  }

  function renderList() {
    const wanted = found.trim().toLowerCase();
    const fresh = [...edits.all.values()].filter((e) => e.isNew);
    const there = rows.filter((r) => (r.caption ?? "").toLowerCase().includes(wanted));
    const line = (feature, caption, note) => h("li", {}, h("button", { type: "button", class: "plain", "data-row": feature.id, "aria-pressed": String(current?.id === feature.id), onclick: () => choose(feature) }, caption, note && h("span", { class: "quiet" }, ` ${note}`)));
    list.replaceChildren(
      h("div", { class: "flex justify-between items-baseline" }, h("h2", {}, "Rows"), h("span", { class: "quiet" }, `${rows.length} written`)),
      h("p", { class: "my-2" }, h("button", { type: "button", id: "new-row", onclick: add }, "A new row")),
      h("p", {}, h("input", { class: "w-full", type: "search", value: found, "aria-label": "Find a row", placeholder: "Find a row", oninput: (e) => {
        found = e.target.value;
        renderList();
        list.querySelector("input").focus();
      } })),
      h("ul", { class: "max-h-[50dvh] overflow-y-auto" }, fresh.map((e) => line(e, captionOf(e), "not written yet")), there.slice(0, MOST_LISTED).map((r) => line({ id: r.id, version: r.version, stood: r.properties }, r.caption || "(no caption)", edits.get(r.id)?.removed ? "will be taken away" : edits.get(r.id) ? "changed" : ""))),
      there.length > MOST_LISTED ? h("p", { class: "quiet" }, `The first ${MOST_LISTED} of ${there.length}.`) : "");
  }
  function renderFoot() {
    foot.show({ count: edits.count, canUndo: edits.back.length > 0, told, failure });
  }
  function renderForm() {
    if (!current) return form.replaceChildren(h("p", { class: "quiet" }, rows.length === 0 && edits.count === 0 ? "This table has no rows yet. Begin with “A new row”." : "Choose a row, or begin a new one."));
    const feature = current;
    const e = edits.of(feature);
    form.replaceChildren(
      h("div", { class: "flex justify-between gap-2" }, h("h2", {}, captionOf(e)), h("button", { type: "button", class: "plain", onclick: () => {
        edits.keep(current);
        if (e.isNew) {
          edits.all.delete(e.id);
          current = null;
        } else edits.put(feature, { removed: !e.removed });
        render();
      } }, e.removed ? "Keep it after all" : "Take this row away")),
      e.removed ? h("p", {}, "Will be taken away.") : valuesForm({ id: e.id, schema, typed: e.typed, stood: e.stood ?? {}, isNew: e.isNew, faults: edits.faults[e.id] ?? {}, changed: (name, typed, again) => {
        if (!again) edits.keep(current);
        told = "";
        const wrong = edits.type(feature, name, typed);
        afterPress(renderList);
        renderFoot();
        return wrong;
      } }));
  }
  function render() {
    renderList();
    renderForm();
    renderFoot();
  }

  addEventListener("beforeunload", (e) => {
    if (edits.count > 0) e.preventDefault();
  });
  await load();
  render();
  box.dataset.ready = "true";
}
