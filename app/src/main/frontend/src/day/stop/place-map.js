// Where a visit is, set on the map: a point by a tap, lines and areas tap by tap, also at the own position.
import * as maps from "../../map/map.js";
import { say } from "../../shell/say.js";
import { element, html, nothing, render } from "../../shell/view.js";
import { book, featureOf, placed, stopState } from "../book.js";
import { currentFix, watchPosition } from "../fix.js";
import { projectMap } from "../project-map.js";

/** @type {Record<string, {type: any, how: import("../../shell/say.js").MessageKey, least: number}>} */
const KINDS = {
  point: { type: "Point", how: "day.mapPoint", least: 1 },
  line: { type: "LineString", how: "day.mapLine", least: 2 },
  polygon: { type: "Polygon", how: "day.mapArea", least: 3 },
};
/** How near the map begins, about a street wide. */
const ZOOM = 17;

/** @param {any} visit the open visit @returns {Promise<any>} its new place as GeoJSON; null when it is left as it was */
export function placeOnMap(visit) {
  const { type, how, least } = KINDS[visit.work.schema.kind] ?? KINDS.point;
  const pack = book.packs.find((p) => p.round === visit.visit.round);
  const dialog = /** @type {HTMLDialogElement} */ (
    element(
      html`<dialog class="place-map" aria-label=${say(how)}>
        <p class="told" role="status">${say(how)}</p>
        <div class="map"></div>
        <div class="q-answer"></div>
      </dialog>`,
    )
  );
  document.body.append(dialog);
  dialog.showModal();
  const m = maps.makeMap(dialog.querySelector(".map"));
  const source = new maps.VectorSource();
  m.addLayer(new maps.VectorLayer({ source, zIndex: 20, style: mark }));
  const was = placed(JSON.parse(visit.open.saved()).place);
  /** @type {number[][]} what was tapped, on the map's plane */
  let taps = was?.type === "Point" && type === "Point" ? [maps.fromLonLat(was.coordinates)] : [];
  const ended = watchPosition(maps.ownPosition(m));
  const at = was ?? (currentFix() ? { type: "Point", coordinates: [currentFix().lon, currentFix().lat] } : null);
  if (pack) {
    projectMap(m, pack);
    const stops = maps.stopLayer(m, (id) => stopState(pack, id));
    for (const s of pack.stops) {
      const { geometry, caption } = featureOf(pack, s.feature);
      if (geometry) stops.getSource()?.addFeature(maps.featureOf(geometry, s.feature, { caption }));
    }
    if (!at) maps.show(m, stops.getSource()?.getExtent());
  }
  if (at) maps.show(m, maps.featureOf(at).getGeometry()?.getExtent());
  if (at?.type === "Point") m.getView().setZoom(ZOOM);
  return new Promise((resolve) => {
    const end = (shape) => {
      ended();
      m.setTarget(undefined);
      dialog.close();
      dialog.remove();
      resolve(shape);
    };
    const tap = (spot) => {
      taps = type === "Point" ? [spot] : [...taps, spot];
      draw();
    };
    const draw = () => {
      source.clear(true);
      const shape = shapeOf(type, taps);
      if (shape) source.addFeature(new maps.Feature(/** @type {any} */ (maps.format.readGeometry(shape))));
      for (const t of taps) source.addFeature(new maps.Feature(new maps.Point(t)));
      render(buttons(), /** @type {HTMLElement} */ (dialog.querySelector(".q-answer")));
    };
    const buttons = () => {
      const fix = currentFix();
      return html`<button type="button" class="plain" id="map-back" @click=${() => end(null)}>${say("day.mapBack")}</button>
        ${
          fix
            ? html`<button type="button" id="map-here" @click=${() => tap(maps.fromLonLat([fix.lon, fix.lat]))}>
                ${say("day.mapHere")}
              </button>`
            : nothing
        }
        ${
          type === "Point"
            ? nothing
            : html`<button type="button" id="map-undo" ?disabled=${taps.length === 0} @click=${() => ((taps = taps.slice(0, -1)), draw())}>
                ${say("day.mapUndo")}
              </button>`
        }
        <button type="button" class="main" id="map-done" ?disabled=${taps.length < least} @click=${() => end(shapeOf(type, taps))}>
          ${say("day.mapDone")}
        </button>`;
    };
    m.on("singleclick", (e) => tap(e.coordinate));
    dialog.addEventListener("cancel", () => end(null));
    draw();
  });
}

/** What was tapped as GeoJSON in degrees. @param {string} type @param {number[][]} taps */
function shapeOf(type, taps) {
  const at = taps.map((t) => maps.toLonLat(t));
  if (type === "Point") return at[0] ? { type, coordinates: at[0] } : null;
  if (type === "LineString") return at.length > 1 ? { type, coordinates: at } : null;
  return at.length > 2 ? { type, coordinates: [[...at, at[0]]] } : null;
}

const spot = new maps.CircleStyle({
  radius: 6,
  fill: new maps.Fill({ color: "#6a3d7c" }),
  stroke: new maps.Stroke({ color: "#fbf9f3", width: 2 }),
});
const mark = new maps.Style({
  image: spot,
  stroke: new maps.Stroke({ color: "#6a3d7c", width: 4 }),
  fill: new maps.Fill({ color: "rgba(106,61,124,0.2)" }),
});
