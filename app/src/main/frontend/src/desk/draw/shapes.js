// How shapes that are being drawn look on the map.
import MultiPoint from "ol/geom/MultiPoint.js";
import CircleStyle from "ol/style/Circle.js";
import Fill from "ol/style/Fill.js";
import Stroke from "ol/style/Stroke.js";
import Style from "ol/style/Style.js";

const HEATHER = "#6a3d7c";
/** Of a shape with more corners these are not drawn. */
const MOST_CORNERS = 2000;

const corners = new Style({
  image: new CircleStyle({ radius: 4, fill: new Fill({ color: "#fff" }), stroke: new Stroke({ color: HEATHER, width: 2 }) }),
  geometry: (/** @type {any} */ f) => {
    const out = [];
    const walk = (c) => (typeof c[0] === "number" ? out.push(c) : c.forEach(walk));
    walk(f.getGeometry().getCoordinates());
    return out.length > MOST_CORNERS ? undefined : new MultiPoint(out);
  },
});

/** The shape that is in hand. */
export const working = [
  new Style({ stroke: new Stroke({ color: "#fff", width: 6 }) }),
  new Style({
    stroke: new Stroke({ color: HEATHER, width: 3 }),
    fill: new Fill({ color: HEATHER + "2e" }),
    image: new CircleStyle({ radius: 8, fill: new Fill({ color: HEATHER }), stroke: new Stroke({ color: "#fff", width: 2 }) }),
  }),
  corners,
];

/** Shapes that were changed before and are not written yet. */
export const others = new Style({
  stroke: new Stroke({ color: HEATHER, width: 2, lineDash: [6, 4] }),
  fill: new Fill({ color: HEATHER + "18" }),
  image: new CircleStyle({ radius: 6, fill: new Fill({ color: HEATHER + "aa" }), stroke: new Stroke({ color: "#fff", width: 1.5 }) }),
});

/** The corner under the pointer. */
export const grip = new Style({
  image: new CircleStyle({ radius: 7, fill: new Fill({ color: "#d9a400" }), stroke: new Stroke({ color: "#1f2a30", width: 2 }) }),
});
