// The project's map in the day book: what the pack took along of it, drawn by the same looks through the engine on the device.
import MVT from "ol/format/MVT.js";
import VectorLayer from "ol/layer/Vector.js";
import VectorTileLayer from "ol/layer/VectorTile.js";
import VectorSource from "ol/source/Vector.js";
import VectorTileSource from "ol/source/VectorTile.js";
import { createXYZ } from "ol/tilegrid.js";
import { groundSwitch, pictureBase } from "../map/basemaps.js";
import { onMap } from "../map/layer-on-map.js";
import { legend } from "../map/legend.js";
import { denominator, Painter } from "../map/look.js";
import { plainBase } from "../map/map.js";
import { loadEngine } from "../shell/engine.js";
import { say } from "../shell/say.js";
import { element, html, nothing } from "../shell/view.js";
import { basemap, mapOf } from "./pack.js";

/** Puts basemaps and layers under the stops, with a switch for both. */
export async function projectMap(m, pack) {
  const { map, ground } = await mapOf(pack);
  /** @type {any[]} */
  const bases = [
    { id: "plain", name: say("map.plain"), layer: plainBase(await basemap(pack)) },
    { id: "outline", name: say("map.outline"), layer: null },
    { id: "none", name: say("map.none"), layer: null },
  ];
  if (ground) bases.unshift({ id: "ground", name: ground.name, layer: pictureBase(ground.grid, (z, x, y) => tile(ground, z, x, y)) });
  groundSwitch(m, bases).use(bases[0]);
  const engine = await loadEngine();
  const rows = (map?.layers ?? []).map((l, i) => row(m, l, i, engine));
  if (rows.length === 0) return;
  m.getTargetElement().append(
    element(
      html`<details class="day-legend">
        <summary>${say("map.legend")}</summary>
        <ul class="flex flex-col gap-2">
          ${rows}
        </ul>
      </details>`,
    ),
  );
}

function tile(ground, z, x, y) {
  const picture = ground.tiles[`${z}/${x}/${y}`];
  return picture ? "data:image/png;base64," + picture : undefined;
}

/** A layer's features, drawn one by one. */
function featuresOf(l, painting, style) {
  const drawn = JSON.parse(painting.drawn(JSON.stringify(l.features), new Date().toISOString()));
  const features = l.features.map((f, k) => ({ ...f, drawn: drawn[k] })).filter((f) => f.geometry);
  return new VectorLayer({ source: new VectorSource({ features: features.map(onMap) }), style, declutter: true });
}

/** A layer that is too large for that, as the tiles that were taken along. */
function tilesOf({ tiles }, style) {
  const format = new MVT({ layers: ["features"] });
  const source = new VectorTileSource({
    format,
    tileGrid: createXYZ({ tileSize: 512, minZoom: tiles.least, maxZoom: tiles.most }),
    transition: 0,
    tileUrlFunction: ([z, x, y]) => (tiles.tiles[`${z}/${x}/${y}`] ? `${z}/${x}/${y}` : undefined),
    tileLoadFunction: (made, key) => {
      const one = /** @type {any} */ (made);
      one.setLoader((extent, _, projection) => {
        const bytes = Uint8Array.from(atob(tiles.tiles[key]), (c) => c.charCodeAt(0));
        one.setFeatures(format.readFeatures(bytes.buffer, { extent, featureProjection: projection }));
      });
    },
  });
  return new VectorTileLayer({ source, style, declutter: false });
}

function row(m, l, i, engine) {
  const painting = engine.painting(JSON.stringify(l.look), JSON.stringify(l.schema));
  const plan = JSON.parse(painting.plan());
  const { style } = new Painter(plan, () => denominator(m));
  /** @type {any} */
  const layer = l.tiles ? tilesOf(l, style) : featuresOf(l, painting, style);
  layer.setOpacity(l.opacity);
  layer.setZIndex(5 - i * 0.01);
  m.addLayer(layer);
  return html`<li>
    <label class="flex gap-2 items-center font-semibold">
      <input type="checkbox" checked @change=${(e) => layer.setVisible(e.target.checked)} />${l.name}</label
    >
    ${l.cut ? html`<p class="quiet text-sm">${say("day.firstAround", { n: l.features.length })}</p>` : nothing}
    ${l.tiles ? html`<p class="quiet text-sm">${say("day.asTiles")}</p>` : nothing}
    <ul class="legend text-sm">
      ${legend(plan, l.name)}
    </ul>
  </li>`;
}
