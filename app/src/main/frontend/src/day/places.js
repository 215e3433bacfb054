// The map of the day book: stops by state over the project's map, other assets where they may be visited, where the person is, the way to the next stop.
import { say } from "../shell/say.js";
import { ALLOWS, STOP } from "../shell/states.js";
import { html, render } from "../shell/view.js";
import { book, featureOf, stopState } from "./book.js";
import { ask, mayAsk } from "./elsewhere.js";
import { farFrom } from "./far.js";
import { currentFix, watchPosition } from "./fix.js";
import { placeCard } from "./map-card.js";
import { nextOf } from "./next.js";
import { noRound } from "./notes.js";

/** How it is looked at; kept while the page lives. `chosen`: the feature that the way leads to, "" for the next stop; `why`: why the office told nothing. */
const look = { follow: false, chosen: "", among: /** @type {string[]} */ ([]), why: "" };

/** So far from the person a feature counts as being here, at least, in metres. */
const HERE_M = 25;

/** Shows a feature on the map when it is opened next. @param {string} id */
export function lookAt(id) {
  Object.assign(look, { chosen: id, among: [], follow: false });
}

export function mapView() {
  if (!book.round) return noRound();
  const pack = book.round;
  const body = html`<div class="map day-map" id="day-map" aria-label=${say("day.mapOfStops")}></div>
    <div id="map-card" class="card day-map-card" aria-live="polite"></div>`;
  return { body, begin: (root) => begin(root, pack) };
}

/** Draws the features of a pack by what they are to the round; gives the layers that can be tapped. */
function features(maps, m, pack) {
  const stops = maps.stopLayer(m, (id) => stopState(pack, id));
  const others = maps.featureLayer(m, (id) => id === look.chosen);
  const put = (layer, f) => layer.getSource().addFeature(maps.featureOf(f.geometry, f.id, { caption: f.caption }));
  const any = pack.plan.round.allows !== ALLOWS.STOPS;
  for (const f of [...pack.features, ...pack.made.values()]) {
    if (!f.geometry) continue;
    // what was visited is marked like a stop, whether it is one or not
    if (pack.isStop.has(f.id) || f.made || (any && stopState(pack, f.id) !== STOP.TO_DO)) put(stops, f);
    else if (any) put(others, f);
  }
  return [stops, others];
}

async function begin(root, pack) {
  const [maps, { projectMap }] = await Promise.all([import("../map/map.js"), import("./project-map.js")]);
  let farOf = await farFrom(pack);
  const m = maps.makeMap(root.querySelector("#day-map"));
  await projectMap(m, pack);
  const layers = features(maps, m, pack);
  const { area } = pack.plan.round;
  const way = wayOn(maps, m);
  if (area) m.addLayer(areaOf(maps, area));
  const chosen = look.chosen && featureOf(pack, look.chosen);
  const extent = layers.map((l) => l.getSource().getExtent()).find((e) => e.every(Number.isFinite));
  if (chosen?.geometry) maps.show(m, maps.featureOf(chosen.geometry).getGeometry().getExtent());
  else maps.show(m, extent ?? (area && maps.featureOf(area).getGeometry().getExtent()));
  const own = maps.ownPosition(m);

  const target = () => featureOf(pack, look.chosen) ?? featureOf(pack, nextOf(pack) ?? "");
  const draw = () => {
    const fix = currentFix();
    const far = fix ? farOf(fix) : new Map();
    const to = target();
    way.clear(true);
    if (fix && to?.geometry) way.addFeature(new maps.Feature(lineTo(maps, fix, to.geometry)));
    if (fix && look.follow) m.getView().setCenter(maps.fromLonLat([fix.lon, fix.lat]));
    const card = root.querySelector("#map-card");
    if (card) render(placeCard({ pack, look, to, far, fix, acts }), card);
  };
  const acts = {
    choose: (id) => {
      Object.assign(look, { chosen: id, among: [], why: "" });
      for (const l of layers) l.changed();
      draw();
    },
    follow: () => {
      look.follow = !look.follow;
      draw();
    },
    here: () => {
      const fix = currentFix();
      const far = fix ? [...farOf(fix)] : [];
      const near = far.filter(([, f]) => f.distanceM <= Math.max(HERE_M, fix.accuracy ?? 0));
      look.among = near.sort((a, b) => a[1].distanceM - b[1].distanceM).map(([id]) => id);
      if (look.among.length === 0) look.among = [""];
      draw();
    },
    leave: () => {
      look.among = [];
      draw();
    },
  };
  m.on("pointerdrag", () => {
    if (look.follow) acts.follow();
  });
  m.on("singleclick", (e) => {
    const hits = new Set();
    m.forEachFeatureAtPixel(e.pixel, (f) => void hits.add(f.getId()), { layerFilter: (l) => layers.includes(l), hitTolerance: 14 });
    hits.delete(undefined);
    if (hits.size > 1) {
      look.among = [...hits];
      draw();
    } else if (hits.size === 1) acts.choose([...hits][0]);
    else if (mayAsk(pack)) askAt(e);
  });
  /** What does not travel is asked for where it was tapped. */
  const askAt = async (e) => {
    const [lon, lat] = maps.toLonLat(e.coordinate);
    const metres = m.getView().getResolution() * 14 * Math.cos((lat * Math.PI) / 180);
    const { found, why } = await ask(pack, { lon: String(lon), lat: String(lat), within: String(Math.min(1000, Math.max(1, metres))) });
    farOf = await farFrom(pack);
    if (found.length === 1) acts.choose(found[0].id);
    else {
      Object.assign(look, { among: why ? [] : found.length ? found.map((f) => f.id) : [""], why });
      draw();
    }
  };
  draw();
  const ended = watchPosition((fix) => {
    own(fix);
    draw();
  });
  return () => {
    ended();
    look.among = [];
  };
}

/** Where the way is drawn. */
function wayOn(maps, m) {
  const source = new maps.VectorSource();
  const stroke = new maps.Stroke({ color: "#6a3d7c", width: 3, lineDash: [6, 6] });
  m.addLayer(new maps.VectorLayer({ source, zIndex: 9, style: new maps.Style({ stroke }) }));
  return source;
}

function areaOf(maps, area) {
  const style = new maps.Style({ stroke: new maps.Stroke({ color: "#1f2a30", width: 2, lineDash: [3, 5] }) });
  return new maps.VectorLayer({ source: new maps.VectorSource({ features: [maps.featureOf(area)] }), zIndex: 6, style });
}

/** The straight line from the person to the nearest corner of a shape. */
function lineTo(maps, fix, geometry) {
  const from = maps.fromLonLat([fix.lon, fix.lat]);
  return new maps.LineString([from, maps.featureOf(geometry).getGeometry().getClosestPoint(from)]);
}
