// The map of a round as it goes: its stops by state along their way, what was visited beside them, where people are.
import LineString from "ol/geom/LineString.js";
import { withBasemaps } from "../../map/basemaps.js";
import * as maps from "../../map/map.js";
import { say } from "../../shell/say.js";
import { when } from "../../shell/styles.js";

/** @typedef {import("../../../types/border").RoundNow} RoundNow */

const WAY = new maps.Style({ stroke: new maps.Stroke({ color: "#6a3d7c", width: 2, lineDash: [2, 6] }) });

const AREA = new maps.Style({ stroke: new maps.Stroke({ color: "#1f2a30", width: 2, lineDash: [3, 5] }) });

/** Where the way meets a stop. @param {any} geometry */
function spot(geometry) {
  let c = geometry.coordinates;
  while (typeof c[0] !== "number") c = c[0];
  return maps.fromLonLat(c);
}

/** The stops and people on the map. @param {HTMLElement} box @param {string} project @param {string | undefined} area GeoJSON */
export async function liveMap(box, project, area) {
  const map = maps.makeMap(box);
  await withBasemaps(map, project);
  const states = new Map();
  const stops = /** @type {any} */ (maps.stopLayer(map, (id) => states.get(id)).getSource());
  const way = new maps.VectorSource();
  /** @type {any} */
  let line = null;
  map.addLayer(new maps.VectorLayer({ source: way, zIndex: 7, style: WAY }));
  const there = maps.featureLayer(map, () => true);
  const where = /** @type {any} */ (there.getSource());
  let shown = false;
  if (area) {
    const bounds = maps.featureOf(JSON.parse(area));
    bounds.setStyle(AREA);
    way.addFeature(bounds);
    maps.show(map, bounds.getGeometry()?.getExtent());
  }
  map.on("singleclick", (e) => {
    const hit = map.forEachFeatureAtPixel(e.pixel, (f) => f, { layerFilter: (l) => l.getSource?.() === stops, hitTolerance: 10 });
    const id = /** @type {any} */ (hit)?.getId();
    if (id) document.querySelector(`[data-stop="${id}"]`)?.scrollIntoView({ block: "center" });
  });
  /** @param {RoundNow} now */
  const show = (now) => {
    states.clear();
    stops.clear(true);
    const at = [];
    for (const s of now.stops) {
      states.set(s.id, s.state);
      if (s.geometry) at.push(spot(s.geometry));
      if (s.geometry) stops.addFeature(maps.featureOf(s.geometry, s.id, { caption: `${s.place} · ${s.caption}` }));
    }
    for (const v of now.beside) {
      states.set(v.visit, v.state);
      if (v.geometry) stops.addFeature(maps.featureOf(v.geometry, v.visit, { caption: v.caption }));
    }
    if (line) way.removeFeature(line);
    line = at.length > 1 ? new maps.Feature(new LineString(at)) : null;
    if (line) way.addFeature(line);
    where.clear(true);
    for (const p of now.people)
      if (p.at)
        where.addFeature(
          maps.featureOf({ type: "Point", coordinates: p.at }, p.name, {
            caption: say("desk.round.whereAt", { person: p.name, when: when(p.atWhen ?? "") }),
          }),
        );
    if (!shown && stops.getFeatures().length) maps.show(map, stops.getExtent());
    shown ||= stops.getFeatures().length > 0;
  };
  /** @param {string} id */
  const look = (id) => {
    const f = stops.getFeatureById(id);
    if (f) maps.show(map, f.getGeometry().getExtent());
  };
  return { show, look };
}
