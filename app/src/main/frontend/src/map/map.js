// Maps: OpenLayers on canvas over the outline of the lands and the project's plain basemap, styles of our own.
import Feature from "ol/Feature.js";
import OlMap from "ol/Map.js";
import View from "ol/View.js";
import LineString from "ol/geom/LineString.js";
import Point from "ol/geom/Point.js";
import { circular } from "ol/geom/Polygon.js";
import { defaults as controls } from "ol/control/defaults.js";
import MousePosition from "ol/control/MousePosition.js";
import ScaleLine from "ol/control/ScaleLine.js";
import { defaults as interactions } from "ol/interaction/defaults.js";
import VectorLayer from "ol/layer/Vector.js";
import { fromLonLat, toLonLat, transformExtent } from "ol/proj.js";
import VectorSource from "ol/source/Vector.js";
import CircleStyle from "ol/style/Circle.js";
import Fill from "ol/style/Fill.js";
import Icon from "ol/style/Icon.js";
import RegularShape from "ol/style/RegularShape.js";
import Stroke from "ol/style/Stroke.js";
import Style from "ol/style/Style.js";
import Text from "ol/style/Text.js";
import { degrees, inFeet } from "../shell/format.js";
import { say } from "../shell/say.js";
import { symbolUrl } from "../shell/symbols.js";
import { withOutline } from "./outline.js";
import { format, plainBase } from "./plain.js";

export { format, plainBase };
const FONT = '"Atkinson Hyperlegible Next Variable", sans-serif';

const zoomSaid = () => ({ zoomInTipLabel: say("map.zoomIn"), zoomOutTipLabel: say("map.zoomOut") });

/** A feature on the map out of a GeoJSON geometry. @param {any} geometry @param {string} [id] @param {Record<string, unknown>} [properties] */
export function featureOf(geometry, id, properties = {}) {
  const made = new Feature({ ...properties, geometry: /** @type {any} */ (format.readGeometry(geometry)) });
  if (id !== undefined) made.setId(id);
  return made;
}

/** A map in an element. `basemap` is GeoJSON; empty for none. */
export function makeMap(target, basemap) {
  const map = new OlMap({
    target,
    layers: basemap ? [plainBase(basemap)] : [],
    controls: controls({ attribution: false, rotate: false, zoomOptions: zoomSaid() }).extend([
      new ScaleLine({ units: inFeet() ? "imperial" : "metric", minWidth: 70 }),
      new MousePosition({ projection: "EPSG:4326", coordinateFormat: degrees, placeholder: "" }),
    ]),
    interactions: interactions({ altShiftDragRotate: false, pinchRotate: false }),
    view: new View({ center: fromLonLat([-10.2, 57.9]), zoom: 11, maxZoom: 21, constrainRotation: true }),
  });
  const own = /** @type {any} */ (map);
  own.outline = withOutline(map);
  /** @type {any} */ (target).olMap = map; // whoever has the element can ask what is drawn
  return map;
}

const selectedStroke = new Stroke({ color: "#6a3d7c", width: 4 });
const plainPoint = new CircleStyle({
  declutterMode: "none",
  radius: 5,
  fill: new Fill({ color: "#3c4f5a" }),
  stroke: new Stroke({ color: "#fbf9f3", width: 1.5 }),
});
const chosenPoint = new CircleStyle({
  declutterMode: "none",
  radius: 8,
  fill: new Fill({ color: "#6a3d7c" }),
  stroke: new Stroke({ color: "#1f2a30", width: 2 }),
});

function label(f, map) {
  return map.getView().getZoom() < 14
    ? undefined
    : new Text({
        text: f.get("caption") ?? "",
        font: `12px ${FONT}`,
        offsetY: -14,
        fill: new Fill({ color: "#1f2a30" }),
        stroke: new Stroke({ color: "#fbf9f3", width: 3 }),
      });
}

/** A layer's features on a map; `isChosen(id)` says which are drawn as selected. @param {any} map @param {(id: any) => boolean} [isChosen] */
export function featureLayer(map, isChosen = () => false) {
  const layer = new VectorLayer({
    source: new VectorSource(),
    declutter: true,
    style: (f) => {
      const chosen = isChosen(f.getId());
      const line = f.getGeometry().getType().includes("Line");
      const area = f.getGeometry().getType().includes("Polygon");
      return new Style({
        zIndex: chosen ? 2 : 1,
        image: chosen ? chosenPoint : plainPoint,
        fill: area ? new Fill({ color: chosen ? "rgba(106,61,124,0.25)" : "rgba(60,79,90,0.07)" }) : undefined,
        stroke: chosen ? selectedStroke : new Stroke({ color: "#3c4f5a", width: line ? 3 : 1.4 }),
        text: area
          ? new Text({
              text: f.get("caption") ?? "",
              font: `600 13px ${FONT}`,
              overflow: true,
              fill: new Fill({ color: "#1f2a30" }),
              stroke: new Stroke({ color: "#fbf9f3", width: 3 }),
            })
          : label(f, map),
      });
    },
  });
  map.addLayer(layer);
  return layer;
}

const icons = new Map();
function icon(name) {
  if (!icons.has(name)) icons.set(name, new Icon({ src: symbolUrl(name), scale: 1, declutterMode: "none" }));
  return icons.get(name);
}

/** Stops on a map by their state. */
export function stopLayer(map, stateOf) {
  const layer = new VectorLayer({
    source: new VectorSource(),
    declutter: true,
    zIndex: 8,
    style: (f) => {
      const shape = /** @type {any} */ (f.getGeometry());
      const at =
        shape.getType() === "Point"
          ? shape
          : new Point(
              shape.getType().includes("Polygon")
                ? (shape.getInteriorPoint?.().getFirstCoordinate() ?? shape.getFirstCoordinate())
                : shape.getFirstCoordinate(),
            );
      return [
        new Style({ stroke: new Stroke({ color: "#1f2a30", width: 2 }) }),
        new Style({ geometry: at, image: icon(stateOf(f.getId())), text: label(f, map) }),
      ];
    },
  });
  map.addLayer(layer);
  return layer;
}

/** Where the device is: an ink wedge, its accuracy as a dashed ring. Returns a function that takes a fix. */
export function ownPosition(map) {
  const wedge = new Feature();
  const ring = new Feature();
  const image = new Icon({ src: symbolUrl("here"), rotateWithView: true });
  wedge.setStyle(new Style({ image, zIndex: 9 }));
  ring.setStyle(new Style({ stroke: new Stroke({ color: "#1f2a30", width: 1.5, lineDash: [5, 5] }) }));
  map.addLayer(new VectorLayer({ source: new VectorSource({ features: [ring, wedge] }), zIndex: 10 }));
  return (fix) => {
    wedge.setGeometry(new Point(fromLonLat([fix.lon, fix.lat])));
    image.setRotation(((fix.heading ?? 0) * Math.PI) / 180);
    ring.setGeometry(fix.accuracy ? circular([fix.lon, fix.lat], fix.accuracy, 48).transform("EPSG:4326", "EPSG:3857") : undefined);
  };
}

/** Where the pictures of one feature were taken, with a line to where each looks. Returns `{ show(pictures) }`. */
export function picturePlaces(map) {
  const source = new VectorSource();
  const frame = new Style({ image: new Icon({ src: symbolUrl("photo") }), zIndex: 8 });
  const look = (direction) =>
    new Style({
      zIndex: 7,
      renderer: (at, { context, pixelRatio }) => {
        const [x, y] = /** @type {number[]} */ (at);
        const a = (direction * Math.PI) / 180;
        context.strokeStyle = "#1f2a30";
        context.lineWidth = 2 * pixelRatio;
        context.beginPath();
        context.moveTo(x, y);
        context.lineTo(x + Math.sin(a) * 34 * pixelRatio, y - Math.cos(a) * 34 * pixelRatio);
        context.stroke();
      },
    });
  map.addLayer(new VectorLayer({ source, zIndex: 8 }));
  return {
    show: (pictures) => {
      source.clear();
      for (const p of pictures) {
        if (!Number.isFinite(p.lat)) continue;
        const f = new Feature(new Point(fromLonLat([p.lon, p.lat])));
        f.setStyle(Number.isFinite(p.direction) ? [look(p.direction), frame] : frame);
        source.addFeature(f);
      }
    },
  };
}

/** Shows an extent in degrees [west, south, east, north], or that of a source. */
export function show(map, extent, padding = 40) {
  if (extent && extent.every(Number.isFinite)) map.getView().fit(extent, { padding: [padding, padding, padding, padding], maxZoom: 17 });
}

/** Shows an extent as pages carry it, "west,south,east,north" in degrees; without one the map stays where it is. */
export function showText(map, text) {
  const extent = (text ?? "").split(",").map(Number);
  if (text && extent.length === 4) show(map, ofDegrees(extent));
}

export const ofDegrees = (extent) => transformExtent(extent, "EPSG:4326", "EPSG:3857");
export { fromLonLat, toLonLat, LineString, Point, Feature, VectorLayer, VectorSource, Style, Stroke, Fill, CircleStyle, RegularShape };
