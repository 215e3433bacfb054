// Draws features by the instructions that core makes of a look. Decides nothing: colours, sizes and pictures all come from there.
import Point from "ol/geom/Point.js";
import CircleStyle from "ol/style/Circle.js";
import Fill from "ol/style/Fill.js";
import Icon from "ol/style/Icon.js";
import Stroke from "ol/style/Stroke.js";
import Style from "ol/style/Style.js";
import Text from "ol/style/Text.js";
import { wordsInText } from "../shell/say.js";

const FONT = '"Atkinson Hyperlegible Next Variable", sans-serif';
/** Metres of a pixel by which scales are told (OGC SLD 1.1, clause 10.2). */
const PIXEL_M = 0.00028;
const HEATHER = "#6a3d7c";

export const url = (svg) => "data:image/svg+xml;charset=utf-8," + encodeURIComponent(svg);
/** The same picture at twice the pixels, for sharp edges. */
const fine = (svg) => url(svg.replace(/width="([\d.]+)" height="([\d.]+)"/, (_, w, h) => `width="${2 * w}" height="${2 * h}"`));
const alpha = (hex, opacity) =>
  opacity >= 1
    ? hex
    : hex +
      Math.round(opacity * 255)
        .toString(16)
        .padStart(2, "0");

function hatched(d) {
  const scale = window.devicePixelRatio || 1;
  const c = document.createElement("canvas");
  c.width = c.height = d.tile * scale;
  const g = c.getContext("2d");
  g.scale(scale, scale);
  if (d.colour) {
    g.fillStyle = alpha(d.colour, d.opacity);
    g.fillRect(0, 0, d.tile, d.tile);
  }
  g.strokeStyle = d.hatchColour;
  g.lineWidth = d.hatchWidth;
  g.lineCap = "round";
  g.stroke(new Path2D(d.hatch));
  return g.createPattern(c, "repeat");
}

/** White is multiplied in, which changes nothing, but has the picture drawn once and kept; a picture out of SVG would be drawn anew in every frame. */
const KEPT = "#ffffff";

/** Where the middle of a feature is, for marks on lines and areas. */
function middle(f) {
  const g = f.getGeometry();
  const type = g.getType();
  if (type === "Point") return g;
  if (g.getFlatInteriorPoint && type === "Polygon") return new Point(g.getFlatInteriorPoint().slice(0, 2));
  if (type === "MultiPolygon") return new Point((g.getFlatInteriorPoints?.() ?? g.getFlatCoordinates()).slice(0, 2));
  if (type === "LineString") return new Point((g.getFlatMidpoint ? g.getFlatMidpoint() : g.getFlatCoordinates()).slice(0, 2));
  return g;
}

/** Arrow heads along a line: one in the middle, more where it is long. */
function heads(f, resolution) {
  const flat = f.getGeometry().getFlatCoordinates();
  const stride = f.getGeometry().getStride?.() ?? 2;
  const gap = 110 * resolution;
  const out = [];
  let since = gap / 2;
  for (let i = stride; i + 1 < flat.length && out.length < 25; i += stride) {
    const [x, y, nx, ny] = [flat[i - stride], flat[i - stride + 1], flat[i], flat[i + 1]];
    const length = Math.hypot(nx - x, ny - y);
    for (let at = gap - since; at < length && out.length < 25; at += gap) {
      const t = at / length;
      out.push({ at: [x + (nx - x) * t, y + (ny - y) * t], turn: -Math.atan2(ny - y, nx - x) });
    }
    since = (since + length) % gap;
  }
  return out;
}

/** The scale's denominator of a map. */
export function denominator(map) {
  const view = map.getView();
  const lat = Math.atan(Math.sinh(view.getCenter()[1] / 6378137));
  return (view.getResolution() * Math.cos(lat)) / PIXEL_M;
}

export class Painter {
  /** @type {(feature: any) => boolean} */
  isChosen;
  /** `denominatorOf()` gives the map's scale; `isChosen(feature)` says what is drawn as selected. */
  constructor(plan, denominatorOf, isChosen = () => false) {
    this.plan = plan;
    this.denominatorOf = denominatorOf;
    this.isChosen = isChosen;
    this.kept = new Map();
  }

  keep(key, make) {
    if (!this.kept.has(key)) this.kept.set(key, make());
    return this.kept.get(key);
  }

  style = (f, resolution) => {
    const scale = this.denominatorOf();
    const { nearest, farthest } = this.plan;
    if ((nearest > 0 && scale < nearest) || (farthest > 0 && scale > farthest)) return [];
    const n = f.get("n");
    const out = [];
    const last = this.plan.entries.length - 1;
    for (const c of String(f.get("c") ?? 0).split(",")) {
      const entry = this.plan.entries[c] ?? this.plan.entries[last];
      // what fits nowhere lies below all classes
      const z = 10 * (Number(c) === last && this.plan.by !== "one" ? 0 : Number(c) + 1);
      if (n) out.push(this.thinned(entry, n, z));
      else entry.draws.forEach((d, i) => out.push(...this.one(f, d, `${c}.${i}`, z, resolution)));
    }
    const label = f.get("l");
    if (label && !n && out.length > 0 && (this.plan.labelFarthest === 0 || scale <= this.plan.labelFarthest))
      out.push(
        this.label(
          f,
          this.keep(`l|${label}`, () => wordsInText(label)),
        ),
      );
    if (this.isChosen(f)) out.unshift(...this.chosen(f));
    return out;
  };

  one(f, d, key, z, resolution) {
    if (d.draw === "mark") {
      const size = d.sizeBy < 0 ? d.size : (f.get("s" + d.sizeBy) ?? d.size);
      const turn = d.turnBy < 0 ? 0 : Math.round(f.get("t" + d.turnBy) ?? 0);
      const s = this.keep(
        `${key}|${Math.round(size * 2)}|${turn}`,
        () =>
          new Style({
            zIndex: z,
            image: new Icon({
              src: this.keep(key + "|src", () => fine(d.svg)),
              color: KEPT,
              scale: d.size > 0 ? size / d.size / 2 : 0.5,
              rotation: (turn * Math.PI) / 180,
              opacity: d.opacity,
              declutterMode: "none",
            }),
            geometry: middle,
          }),
      );
      return [s];
    }
    if (d.draw === "line") {
      const width = d.widthBy < 0 ? d.width : (f.get("s" + d.widthBy) ?? d.width);
      const line = this.keep(
        `${key}|${Math.round(width * 4)}`,
        () =>
          new Style({
            zIndex: z,
            stroke: new Stroke({
              color: alpha(d.colour, d.opacity),
              width,
              lineDash: d.dash.length ? d.dash : undefined,
              lineCap: d.dash.some((x) => x < 1) ? "round" : "butt",
              lineJoin: "round",
            }),
          }),
      );
      if (!d.tick) return [line];
      return [
        line,
        ...heads(f, resolution).map(
          ({ at, turn }) =>
            new Style({
              zIndex: z + 1,
              geometry: new Point(at),
              image: new Icon({
                src: this.keep(key + "|tick", () => fine(d.tick)),
                color: KEPT,
                scale: 0.5,
                rotation: turn,
                opacity: d.opacity,
                declutterMode: "none",
              }),
            }),
        ),
      ];
    }
    return [
      this.keep(
        key,
        () =>
          new Style({
            zIndex: z,
            fill: new Fill({ color: d.hatch ? hatched(d) : d.colour ? alpha(d.colour, d.opacity) : "rgba(0,0,0,0)" }),
          }),
      ),
    ];
  }

  thinned(entry, n, z) {
    const d = entry.draws[0];
    const colour = d ? d.colour || d.hatchColour : "#3c4f5a";
    const strength = Math.min(4, Math.round(Math.log10(n) * 2));
    return this.keep(
      `thin|${colour}|${strength}|${z}`,
      () => new Style({ zIndex: z, fill: new Fill({ color: d ? alpha(colour, 0.6 + strength * 0.1) : "rgba(0,0,0,0)" }) }),
    );
  }

  label(f, text) {
    const type = f.getType?.() ?? f.getGeometry().getType();
    const point = type.includes("Point");
    return new Style({
      zIndex: 5000,
      text: new Text({
        text,
        font: `${point ? "" : "600 "}${this.plan.labelPx}px ${FONT}`,
        offsetY: point ? -(this.plan.labelPx + 4) : 0,
        placement: type.includes("Line") && !text.includes("\n") ? "line" : "point",
        fill: new Fill({ color: "#1f2a30" }),
        stroke: new Stroke({ color: "#fbf9f3", width: 3 }),
        padding: [1, 3, 1, 3],
      }),
    });
  }

  chosen(f) {
    const type = f.getGeometry().getType();
    if (type.includes("Point"))
      return [
        new Style({
          zIndex: 4000,
          image: new CircleStyle({ radius: 11, stroke: new Stroke({ color: HEATHER, width: 3 }), declutterMode: "none" }),
        }),
      ];
    return [
      new Style({ zIndex: 4000, stroke: new Stroke({ color: "#ffffff", width: 9 }) }),
      new Style({
        zIndex: 4001,
        stroke: new Stroke({ color: HEATHER, width: 5 }),
        fill: type.includes("Polygon") ? new Fill({ color: HEATHER + "22" }) : undefined,
      }),
    ];
  }
}
