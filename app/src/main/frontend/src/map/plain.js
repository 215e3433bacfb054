// The project's plain basemap, drawn out of its GeoJSON.
import GeoJSON from "ol/format/GeoJSON.js";
import VectorLayer from "ol/layer/Vector.js";
import VectorSource from "ol/source/Vector.js";
import Fill from "ol/style/Fill.js";
import Stroke from "ol/style/Stroke.js";
import Style from "ol/style/Style.js";
import Text from "ol/style/Text.js";

export const format = new GeoJSON({ featureProjection: "EPSG:3857" });
const FONT = '"Atkinson Hyperlegible Next Variable", sans-serif';

const ground = {
  land: new Style({ zIndex: 0, fill: new Fill({ color: "#f1eddf" }), stroke: new Stroke({ color: "#8f988f", width: 1.2 }) }),
  marsh: new Style({
    zIndex: 1,
    fill: new Fill({ color: "#dde3cf" }),
    stroke: new Stroke({ color: "#b4bda1", width: 1, lineDash: [3, 3] }),
  }),
  ridge: new Style({
    zIndex: 2,
    fill: new Fill({ color: "rgba(178,166,128,0.16)" }),
    stroke: new Stroke({ color: "rgba(140,128,92,0.45)", width: 1 }),
  }),
  drain: new Style({ zIndex: 3, stroke: new Stroke({ color: "#9bb6c2", width: 1.6 }) }),
  "main drain": new Style({ zIndex: 4, stroke: new Stroke({ color: "#86a9ba", width: 4 }) }),
  road: [
    new Style({ zIndex: 5, stroke: new Stroke({ color: "#b9ad95", width: 4 }) }),
    new Style({ zIndex: 6, stroke: new Stroke({ color: "#fffdf6", width: 2.4 }) }),
  ],
  building: new Style({ zIndex: 7, fill: new Fill({ color: "#cbbfaa" }) }),
};

/** Metres to a pixel beyond which names of places would lie over each other. */
const NAMES_WITHIN = 400;

function basemapStyle(f, perPixel) {
  const what = f.get("what");
  if (what !== "place") return ground[what];
  if (perPixel > NAMES_WITHIN) return undefined;
  return new Style({
    zIndex: 8,
    text: new Text({
      text: f.get("name"),
      font: `italic 13px ${FONT}`,
      fill: new Fill({ color: "#5a5646" }),
      stroke: new Stroke({ color: "#fbf9f3", width: 3 }),
    }),
  });
}

/** The plain basemap, out of its GeoJSON. */
export function plainBase(basemap) {
  return new VectorLayer({
    source: new VectorSource({ features: format.readFeatures(basemap) }),
    style: basemapStyle,
    declutter: false,
    zIndex: 0,
  });
}
