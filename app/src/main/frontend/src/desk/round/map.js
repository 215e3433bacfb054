// The map of a round: its stops by state; a click on one leads to its card.
import { withBasemaps } from "../../map/basemaps.js";
import * as maps from "../../map/map.js";
import { getJson } from "../../shell/server.js";

/** @param {HTMLElement} box */
export async function roundMap(box) {
  const { project = "", round, layer } = box.dataset;
  /** @type {import("../../../types/border").StopPlace[]} */
  const stops = await getJson(`/api/p/${project}/rounds/${round}/stops`);
  const states = new Map(stops.map((s) => [s.id, s.state]));
  const map = maps.makeMap(box);
  await withBasemaps(map, project);
  const drawn = maps.stopLayer(map, (id) => states.get(id));
  const source = /** @type {any} */ (drawn.getSource());
  for (const s of stops) if (s.geometry) source.addFeature(maps.featureOf(s.geometry, s.id, { caption: s.caption }));
  maps.show(map, source.getExtent());
  map.on("singleclick", (e) => {
    const hit = map.forEachFeatureAtPixel(e.pixel, (f) => f, { layerFilter: (l) => l === drawn, hitTolerance: 10 });
    if (hit) location.href = `/p/${project}/layers/${layer}#${/** @type {any} */ (hit).getId()}`;
  });
  box.dataset.ready = "true";
}
