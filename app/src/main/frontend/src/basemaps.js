// What lies under the features: the project's plain basemap, pictures in tiles, the outline alone, or nothing. Switched in one click.
import TileLayer from "ol/layer/Tile.js";
import { get as projection } from "ol/proj.js";
import TileImage from "ol/source/TileImage.js";
import TileGrid from "ol/tilegrid/TileGrid.js";
import { transformExtent } from "ol/proj.js";
import { request } from "./api.js";
import { h } from "./dom.js";
import { plainBase } from "./map.js";

/** A layer of picture tiles; `tileUrl(z, x, y)` gives an address. */
export function pictureBase(grid, tileUrl) {
  const extent = transformExtent(grid.extent, "EPSG:4326", grid.system);
  const source = new TileImage({
    projection: projection(grid.system),
    tileGrid: new TileGrid({ extent, origin: [grid.west, grid.north], resolutions: grid.perPixel, tileSize: [grid.width, grid.height], minZoom: grid.least }),
    tileUrlFunction: (at) => (at ? tileUrl(at[0], at[1], at[2]) : undefined),
    transition: 0,
  });
  return new TileLayer({ source, zIndex: 0 });
}

/** Puts the project's basemaps under a map, with the switch. `told(basemap)` hears which one is shown. */
export async function withBasemaps(map, project, told = () => {}) {
  const { basemaps, shown } = await (await request(`/api/p/${project}/basemaps`)).json();
  const made = new Map();
  let layer = null;
  const make = async (b) => {
    if (b.grid) return pictureBase(b.grid, (z, x, y) => `/api/p/${project}/basemaps/${b.id}/${z}/${x}/${y}`);
    if (b.id === "plain") return plainBase(await (await request(`/api/p/${project}/basemap`)).json());
    return null;
  };
  const buttons = basemaps.map((b) => h("button", { type: "button", "data-basemap": b.id, "aria-pressed": "false", onclick: () => use(b) }, b.name));
  const use = async (b) => {
    if (!made.has(b.id)) made.set(b.id, await make(b));
    if (layer) map.removeLayer(layer);
    layer = made.get(b.id);
    if (layer) map.getLayers().insertAt(0, layer);
    map.outline.show(b.id !== "none");
    for (const x of buttons) x.setAttribute("aria-pressed", String(x.dataset.basemap === b.id));
    told(b);
  };
  if (basemaps.length > 1) map.getTargetElement().append(h("div", { class: "ground-switch", role: "group", "aria-label": "Basemap" }, buttons));
  await use(basemaps.find((b) => b.id === shown) ?? basemaps[0]);
  return basemaps;
}
