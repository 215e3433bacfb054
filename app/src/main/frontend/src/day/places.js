// The map of the day book: the stops by state over the project's map, and where the person is.
import { say } from "../shell/say.js";
import { html } from "../shell/view.js";
import { book, stopState } from "./book.js";
import { watchPosition } from "./fix.js";
import { noRound } from "./notes.js";
import { openStop } from "./stop/open.js";

export function mapView() {
  if (!book.round) return noRound();
  const pack = book.round;
  const body = html`<div class="map h-[calc(100dvh-150px)]" id="day-map" aria-label=${say("day.mapOfStops")}></div>`;
  const begin = async (root) => {
    const [maps, { projectMap }] = await Promise.all([import("../map/map.js"), import("./project-map.js")]);
    const m = maps.makeMap(root.querySelector("#day-map"));
    await projectMap(m, pack);
    const layer = maps.stopLayer(m, (id) => stopState(pack, id));
    for (const f of pack.features) {
      if (!f.geometry || !pack.isStop.has(f.id)) continue;
      layer.getSource().addFeature(maps.featureOf(f.geometry, f.id, { caption: f.caption }));
    }
    maps.show(m, layer.getSource().getExtent());
    m.on("singleclick", (e) => {
      const hit = m.forEachFeatureAtPixel(e.pixel, (f) => f, { layerFilter: (l) => l === layer, hitTolerance: 14 });
      if (hit) openStop(pack, pack.byId.get(hit.getId()));
    });
    return watchPosition(maps.ownPosition(m));
  };
  return { body, begin };
}
