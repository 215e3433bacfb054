// The project's map in the day book: what the pack took along of it, drawn by the same looks through the engine on the device.
import VectorLayer from "ol/layer/Vector.js";
import VectorSource from "ol/source/Vector.js";
import { pictureBase } from "./basemaps.js";
import { h } from "./dom.js";
import { loadEngine } from "./engine.js";
import { onMap } from "./layer-on-map.js";
import { denominator, entrySaid, Painter, url } from "./look.js";
import { plainBase } from "./map.js";
import { basemap, mapOf } from "./pack.js";

/** Puts basemaps and layers under the stops, with a switch for both. */
export async function projectMap(m, pack) {
  const { map, ground } = await mapOf(pack);
  const bases = [["Plain", plainBase(await basemap(pack))]];
  if (ground) bases.unshift([ground.name, pictureBase(ground.grid, (z, x, y) => (ground.tiles[`${z}/${x}/${y}`] ? "data:image/png;base64," + ground.tiles[`${z}/${x}/${y}`] : undefined))]);
  bases.push(["Outline", null], ["None", null]);
  let shown = null;
  const buttons = bases.map(([name, layer]) => h("button", { type: "button", "aria-pressed": "false", onclick: () => use(name, layer) }, name));
  const use = (name, layer) => {
    if (shown) m.removeLayer(shown);
    shown = layer;
    if (layer) m.getLayers().insertAt(0, layer);
    m.outline.show(name !== "None");
    for (const b of buttons) b.setAttribute("aria-pressed", String(b.textContent === name));
  };
  use(...bases[0]);
  const engine = await loadEngine();
  const rows = (map?.layers ?? []).map((l, i) => {
    const painting = engine.painting(JSON.stringify(l.look), JSON.stringify(l.schema));
    const plan = JSON.parse(painting.plan());
    const drawn = JSON.parse(painting.drawn(JSON.stringify(l.features), new Date().toISOString()));
    const painter = new Painter(plan, () => denominator(m));
    const layer = new VectorLayer({ source: new VectorSource({ features: l.features.filter((f) => f.geometry).map((f) => onMap({ ...f, drawn: drawn[l.features.indexOf(f)] })) }), style: painter.style, opacity: l.opacity, zIndex: 5 - i * 0.01, declutter: true });
    m.addLayer(layer);
    return h("li", {},
      h("label", { class: "flex gap-2 items-center font-semibold" }, h("input", { type: "checkbox", checked: true, onchange: (e) => layer.setVisible(e.target.checked) }), l.name),
      l.cut && h("p", { class: "quiet text-sm" }, `The first ${l.features.length} around the stops.`),
      h("ul", { class: "legend text-sm" }, plan.entries.map((e, k) => (e.draws.length === 0 ? null : h("li", {}, h("img", { src: url(e.symbol), alt: "" }), h("span", {}, entrySaid(plan, k, l.name)))))));
  });
  m.getTargetElement().append(
    h("div", { class: "ground-switch", role: "group", "aria-label": "Basemap" }, buttons),
    rows.length > 0 && h("details", { class: "day-legend" }, h("summary", {}, "Legend"), h("ul", { class: "flex flex-col gap-2" }, rows)));
}
