// What lies under the features: the project's plain basemap, pictures in tiles, the outline alone, or nothing. Switched in one click.
import TileLayer from "ol/layer/Tile.js";
import { get as projection } from "ol/proj.js";
import TileImage from "ol/source/TileImage.js";
import TileGrid from "ol/tilegrid/TileGrid.js";
import { transformExtent } from "ol/proj.js";
import { say } from "../shell/say.js";
import { getJson } from "../shell/server.js";
import { html, render } from "../shell/view.js";
import { plainBase } from "./map.js";

/** A layer of picture tiles; `tileUrl(z, x, y)` gives an address. */
export function pictureBase(grid, tileUrl) {
  const extent = transformExtent(grid.extent, "EPSG:4326", grid.system);
  const source = new TileImage({
    projection: projection(grid.system),
    tileGrid: new TileGrid({
      extent,
      origin: [grid.west, grid.north],
      resolutions: grid.perPixel,
      tileSize: [grid.width, grid.height],
      minZoom: grid.least,
    }),
    tileUrlFunction: (at) => (at ? tileUrl(at[0], at[1], at[2]) : undefined),
    transition: 0,
  });
  return new TileLayer({ source, zIndex: 0 });
}

/**
 * The switch of basemaps on a map. `bases` are { id, name, layer } or { id, name, make() }; `told(base)` hears which one is shown.
 * @param {any} map
 * @param {any[]} bases
 * @param {(base: any) => void} [told]
 */
export function groundSwitch(map, bases, told = () => {}) {
  let shown = null;
  let chosen = "";
  const box = map.getTargetElement().appendChild(document.createElement("div"));
  const button = (b) =>
    html`<button type="button" data-basemap=${b.id} aria-pressed=${String(b.id === chosen)} @click=${() => use(b)}>${b.name}</button>`;
  const buttons = () => html`<div class="ground-switch" role="group" aria-label=${say("map.basemap")}>${bases.map(button)}</div>`;
  async function use(b) {
    if (b.layer === undefined) b.layer = await b.make();
    if (shown) map.removeLayer(shown);
    shown = b.layer;
    chosen = b.id;
    if (shown) map.getLayers().insertAt(0, shown);
    map.outline.show(b.id !== "none");
    if (bases.length > 1) render(buttons(), box);
    told(b);
  }
  return { use };
}

/** @type {Record<string, import("../shell/say.js").MessageKey>} */
const OURS = { plain: "map.plain", outline: "map.outline", none: "map.none" };
/** What a basemap is called: those that every project has by a word of ours. */
export const named = (b) => (b.id in OURS ? say(OURS[b.id]) : b.name);

/** What draws a basemap; null for those that are the outline or nothing. */
async function layerOf(project, b) {
  if (b.grid) return pictureBase(b.grid, (z, x, y) => `/api/p/${project}/basemaps/${b.id}/${z}/${x}/${y}`);
  return b.id === "plain" ? plainBase(await getJson(`/api/p/${project}/basemap`)) : null;
}

/** Puts the project's basemaps under a map, with the switch. `told(basemap)` hears which one is shown. @param {any} map @param {string} project @param {(basemap: any) => void} [told] */
export async function withBasemaps(map, project, told = () => {}) {
  const { basemaps, shown } = await getJson(`/api/p/${project}/basemaps`);
  const bases = basemaps.map((b) => ({ ...b, name: named(b), layer: undefined, make: () => layerOf(project, b) }));
  await groundSwitch(map, bases, told).use(bases.find((b) => b.id === shown) ?? bases[0]);
  return basemaps;
}
