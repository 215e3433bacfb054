// Making layers: one card for each, its kind, its fields, the area where its features are expected.
import Draw from "ol/interaction/Draw.js";
import { post, request } from "./api.js";
import { h } from "./dom.js";
import { fieldsEditor } from "./fields.js";
import * as maps from "./map.js";
import { systemField } from "./systems.js";

const KINDS = [["point", "points"], ["line", "lines"], ["polygon", "polygons"], ["table", "a table without geometry"]];

function areaMap(basemap) {
  const box = h("div", { class: "map h-[240px]", tabindex: 0, "aria-label": "Map for the expected area" });
  const clear = h("button", { type: "button", class: "plain", hidden: true }, "Draw it anew");
  let area = null;
  const begin = () => {
    const map = maps.makeMap(box, basemap);
    const source = new maps.VectorSource();
    map.addLayer(new maps.VectorLayer({ source, style: new maps.Style({ stroke: new maps.Stroke({ color: "#6a3d7c", width: 2.5 }), fill: new maps.Fill({ color: "rgba(106,61,124,0.12)" }) }) }));
    const draw = new Draw({ source, type: "Polygon" });
    draw.on("drawend", (e) => {
      area = JSON.parse(maps.format.writeGeometry(e.feature.getGeometry(), { featureProjection: "EPSG:3857", dataProjection: "EPSG:4326", decimals: 6 }));
      map.removeInteraction(draw);
      clear.hidden = false;
    });
    map.addInteraction(draw);
    clear.addEventListener("click", () => {
      source.clear();
      area = null;
      clear.hidden = true;
      map.addInteraction(draw);
    });
    if (basemap.features?.length) maps.show(map, map.getLayers().item(0).getSource().getExtent(), 10);
  };
  return { element: h("div", {}, h("p", { class: "label" }, "Expected area (may be left out)"), h("p", { class: "quiet" }, "Click its corners, double-click the last. Positions outside are told later, not refused."), box, clear), begin, area: () => area };
}

async function card(project, system, basemap, others, n, removed) {
  const name = h("input", { class: "w-full", maxlength: 120, required: true, "aria-label": `name of layer ${n}` });
  const kind = h("select", { "aria-label": `kind of layer ${n}` }, KINDS.map(([v, s]) => h("option", { value: v }, s)));
  const summary = h("input", { class: "w-full", maxlength: 1000, "aria-label": `summary of layer ${n}` });
  const tags = h("input", { class: "w-full", maxlength: 300, placeholder: "drainage, survey 2026", "aria-label": `tags of layer ${n}` });
  const crs = h("input", { class: "w-full system", list: "systems", value: system, autocomplete: "off", "aria-label": `coordinate system of layer ${n}` });
  const editor = h("div", { "data-layers": JSON.stringify(others) });
  const area = areaMap(basemap);
  const element = h("section", { class: "card mb-4" },
    h("div", { class: "flex justify-between" }, h("h2", { class: "mb-2" }, `Layer ${n}`), removed ? h("button", { type: "button", class: "plain", onclick: () => { element.remove(); removed(me); } }, "Leave this one out") : null),
    h("div", { class: "grid gap-4 lg:grid-cols-[1fr_360px]" },
      h("div", { class: "grid gap-2 content-start" }, h("label", { class: "label" }, "Name", name), h("label", { class: "label" }, "It holds ", kind, h("span", { class: "quiet" }, " of one part or several")), h("label", { class: "label" }, "Summary", summary), h("label", { class: "label" }, "Tags, parted by commas", tags), h("label", { class: "label" }, "Coordinate system for taking it out", crs), h("span", { class: "quiet system-name" })),
      area.element),
    h("h3", { class: "mt-3 mb-1" }, "Fields"), editor);
  const fields = await fieldsEditor(editor, { project, schema: { kind: "point", fields: [] } });
  const me = {
    element,
    begin: () => {
      area.begin();
      systemField(crs, project);
    },
    plan: () => ({ name: name.value, summary: summary.value, tags: tags.value, system: crs.value, area: area.area(), schema: { ...fields.schema(), kind: kind.value } }),
  };
  return me;
}

export async function makePage(box) {
  const { project, system } = box.dataset;
  const basemap = await (await request(`/api/p/${project}/basemap`)).json();
  const others = await (await request(`/api/p/${project}/layer-names`)).json();
  const list = h("div", {});
  const problem = h("p", { class: "problem", role: "alert", hidden: true });
  const cards = [];
  const make = h("button", { type: "button", class: "main", id: "make-layers" });
  const said = () => (make.textContent = cards.length === 1 ? "Make the layer" : `Make ${cards.length} layers`);
  /** One after the other: asked for twice at once, the second would be numbered like the first. */
  let adding = Promise.resolve();
  let numbered = 0;
  const add = () => (adding = adding.then(async () => {
    const c = await card(project, system, basemap, others, ++numbered, cards.length > 0 ? (gone) => { cards.splice(cards.indexOf(gone), 1); said(); } : null);
    cards.push(c);
    list.append(c.element);
    c.begin();
    said();
  }));
  make.addEventListener("click", async () => {
    problem.hidden = true;
    try {
      const { made } = await post(`/api/p/${project}/layers`, { layers: cards.map((c) => c.plan()) });
      location.href = made.length === 1 ? `/p/${project}/layers/${made[0]}` : `/p/${project}/layers`;
    } catch (e) {
      problem.textContent = e.message;
      problem.hidden = false;
      problem.scrollIntoView({ block: "nearest" });
    }
  });
  box.replaceChildren(h("datalist", { id: "systems" }), list, problem, h("p", { class: "flex gap-2" }, make, h("button", { type: "button", onclick: add }, "Another layer")));
  await add();
  box.dataset.ready = "true";
}
