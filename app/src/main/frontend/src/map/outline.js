// The outline basemap: lands and borders of the world (Natural Earth, public domain), coarse when far away and finer when near, and a graticule at small scales.
import Graticule from "ol/layer/Graticule.js";
import VectorLayer from "ol/layer/Vector.js";
import { fromLonLat } from "ol/proj.js";
import Feature from "ol/Feature.js";
import MultiLineString from "ol/geom/MultiLineString.js";
import MultiPolygon from "ol/geom/MultiPolygon.js";
import VectorSource from "ol/source/Vector.js";
import Fill from "ol/style/Fill.js";
import Stroke from "ol/style/Stroke.js";
import Style from "ol/style/Style.js";
import Text from "ol/style/Text.js";
import { feature, mesh } from "topojson-client";
import coarse from "world-atlas/countries-110m.json";
import fine from "world-atlas/countries-50m.json";

const FONT = '12px "Atkinson Hyperlegible Next Variable", sans-serif';
/** From this zoom on the finer outline is drawn: a pixel is about 15 km there. */
const FINE_FROM = 3.4;
/** Meridians and parallels are drawn below this zoom, where a map shows more than a few degrees. */
const GRATICULE_BELOW = 7.5;
/** Web Mercator ends here. */
const POLE = 85.05;

const land = new Style({ fill: new Fill({ color: "#f1eddf" }), stroke: new Stroke({ color: "#8f988f", width: 1 }) });
const border = new Style({ stroke: new Stroke({ color: "#b1a793", width: 1, lineDash: [5, 3] }) });

const place = ([lon, lat]) => fromLonLat([lon, Math.max(-POLE, Math.min(POLE, lat))]);

/** A line whose longitudes go on beyond 180° instead of jumping to the other side; one around the pole goes along the map's edge. */
function line(l, ring = false) {
  let turn = 0;
  const on = l.map(([lon, lat], i) => {
    if (i > 0 && lon - l[i - 1][0] > 180) turn -= 360;
    if (i > 0 && lon - l[i - 1][0] < -180) turn += 360;
    return [lon + turn, lat];
  });
  const last = on.at(-1);
  if (ring && Math.abs(last[0] - on[0][0]) > 180) on.push([last[0], -POLE], [on[0][0], -POLE], on[0]);
  return on.map(place);
}

/** Both outlines, each read once whatever maps show it. */
const read = new Map();
function features(file) {
  if (!read.has(file))
    read.set(
      file,
      (async () => {
        const answer = await fetch(new URL(file, import.meta.url));
        if (!answer.ok) throw new Error("The outline of the lands could not be read.");
        const topology = await answer.json();
        const lands = feature(topology, topology.objects.land);
        const polygons = (lands.features ?? [lands]).flatMap((f) =>
          f.geometry.type === "Polygon" ? [f.geometry.coordinates] : f.geometry.coordinates,
        );
        const borders = mesh(topology, topology.objects.countries, (a, b) => a !== b);
        const ground = new Feature(new MultiPolygon(polygons.map((p) => p.map((r) => line(r, true)))));
        ground.setStyle(land);
        const between = new Feature(new MultiLineString(borders.coordinates.map((l) => line(l))));
        between.setStyle(border);
        return [ground, between];
      })(),
    );
  return read.get(file);
}

const degrees = (letters) => (d) => `${Math.abs(Math.round(d * 100) / 100)}°${d === 0 ? "" : " " + letters[d < 0 ? 1 : 0]}`;

function graticule() {
  const text = (more) =>
    new Text({ font: FONT, fill: new Fill({ color: "#5a6469" }), stroke: new Stroke({ color: "#fbf9f3", width: 3 }), ...more });
  return new Graticule({
    strokeStyle: new Stroke({ color: "rgba(90,100,105,0.35)", width: 1 }),
    showLabels: true,
    wrapX: true,
    maxZoom: GRATICULE_BELOW,
    targetSize: 130,
    lonLabelFormatter: degrees("EW"),
    latLabelFormatter: degrees("NS"),
    lonLabelPosition: 0.02,
    latLabelPosition: 0.985,
    lonLabelStyle: text({ textBaseline: "bottom" }),
    latLabelStyle: text({ textAlign: "end" }),
    zIndex: 0.5,
  });
}

/** Puts the outline under a map. Returns `{ show(whether) }`. */
export function withOutline(map) {
  const source = new VectorSource();
  const layers = [new VectorLayer({ source, zIndex: -1 }), graticule()];
  for (const l of layers) map.addLayer(l);
  let shown = null;
  const look = async () => {
    const file = (map.getView().getZoom() ?? 0) < FINE_FROM ? coarse : fine;
    if (file === shown || !layers[0].getVisible()) return;
    shown = file;
    try {
      const drawn = await features(file);
      if (shown !== file) return;
      source.clear();
      source.addFeatures(drawn.map((f) => f.clone()));
      map.getTargetElement()?.setAttribute("data-outline", file === fine ? "fine" : "coarse");
    } catch (e) {
      shown = null; // tried again when the map moves; a map without it can be used
      console.warn(e.message);
    }
  };
  map.on("moveend", look);
  return {
    show: (whether) => {
      for (const l of layers) l.setVisible(whether);
      look();
    },
  };
}
