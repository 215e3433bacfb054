// The planner's map: the layers of the forms, what is chosen on them, the way as a numbered line, and the strokes by which is chosen.
import DragBox from "ol/interaction/DragBox.js";
import Draw from "ol/interaction/Draw.js";
import LineString from "ol/geom/LineString.js";
import Text from "ol/style/Text.js";
import { withBasemaps } from "../../map/basemaps.js";
import { LayerOnMap } from "../../map/layer-on-map.js";
import * as maps from "../../map/map.js";
import { ALLOWS } from "../../shell/states.js";
import { choose, turn } from "./choosing.js";

const FONT = '600 12px "Atkinson Hyperlegible Next Variable", sans-serif';
/** Ways of several people differ by their dashes, and by the letter at their numbers. */
const DASHES = [undefined, [10, 6], [2, 6], [14, 4, 2, 4], [6, 3], [18, 8]];
/** @type {Record<string, any>} */
const STROKES = {
  shape: { type: "Polygon", freehandCondition: (e) => e.originalEvent.shiftKey },
  line: { type: "LineString", freehandCondition: (e) => e.originalEvent.shiftKey },
  area: { type: "Polygon", freehandCondition: (e) => e.originalEvent.shiftKey },
  start: { type: "Point" },
  end: { type: "Point" },
};

/** The letter of a way among several. @param {number} i */
export const letter = (i) => String.fromCharCode(65 + (i % 26)) + (i < 26 ? "" : Math.floor(i / 26));

const chosenMark = (isShown) =>
  new maps.Style({
    zIndex: 3,
    image: new maps.CircleStyle({
      radius: isShown ? 11 : 8,
      stroke: new maps.Stroke({ color: "#6a3d7c", width: isShown ? 4 : 2.5 }),
      declutterMode: "none",
    }),
  });

const areaStyle = new maps.Style({
  stroke: new maps.Stroke({ color: "#1f2a30", width: 2, lineDash: [3, 5] }),
  fill: new maps.Fill({ color: "rgba(251, 249, 243, 0.35)" }),
});

function wayStyle(i) {
  return new maps.Style({ zIndex: 1, stroke: new maps.Stroke({ color: "#6a3d7c", width: 2, lineDash: DASHES[i % DASHES.length] }) });
}

function number(text) {
  return new maps.Style({
    zIndex: 4,
    text: new Text({
      text,
      font: FONT,
      offsetX: 13,
      offsetY: -11,
      fill: new maps.Fill({ color: "#6a3d7c" }),
      stroke: new maps.Stroke({ color: "#fbf9f3", width: 3 }),
    }),
  });
}

function end(text) {
  return new maps.Style({
    zIndex: 5,
    image: new maps.RegularShape({
      points: 4,
      radius: 9,
      fill: new maps.Fill({ color: "#fbf9f3" }),
      stroke: new maps.Stroke({ color: "#1f2a30", width: 2 }),
      declutterMode: "none",
    }),
    text: new Text({
      text,
      font: FONT,
      offsetY: -17,
      fill: new maps.Fill({ color: "#1f2a30" }),
      stroke: new maps.Stroke({ color: "#fbf9f3", width: 3 }),
    }),
  });
}

/** A position that was clicked beyond the date line, where it belongs. @param {number[]} at */
const within = ([lon, lat]) => [((((lon + 180) % 360) + 360) % 360) - 180, lat];

export class PlanMap {
  /** @type {Map<string, LayerOnMap>} */
  layers = new Map();
  /** @type {any} */
  #stroke;
  #tool = "";
  #shown = "";
  #drawn = "";

  /** @param {HTMLElement} target @param {import("./plan.js").Plan} plan @param {{start: string, end: string}} words */
  constructor(target, plan, words) {
    this.plan = plan;
    this.words = words;
    this.map = maps.makeMap(target);
    this.source = new maps.VectorSource();
    this.over = new maps.VectorLayer({ source: this.source, zIndex: 30, declutter: true });
    this.map.addLayer(this.over);
    const box = new DragBox({ condition: (e) => plan.tool === "rectangle" || (!plan.tool && e.originalEvent.shiftKey) });
    box.on("boxend", () => this.#done("rectangle", maps.format.writeGeometryObject(box.getGeometry())));
    this.map.addInteraction(box);
    this.map.on("singleclick", (e) => this.#click(e).catch((error) => plan.set({ failure: error.message })));
  }

  async start(project) {
    this.base = `/api/p/${project}/layers`;
    await withBasemaps(this.map, project);
    const extents = this.plan.planning.layers.map((l) => l.extent.split(",").map(Number)).filter((e) => e.length === 4);
    if (extents.length) {
      const all = extents.reduce((a, b) => [Math.min(a[0], b[0]), Math.min(a[1], b[1]), Math.max(a[2], b[2]), Math.max(a[3], b[3])]);
      maps.show(this.map, maps.ofDegrees(all));
    }
  }

  /** Areas below lines below points, whatever the order of the forms. */
  #above(kind) {
    return { polygon: 10, line: 11, point: 12 }[kind] ?? 10;
  }
  #fit() {
    const wanted = this.plan.layers.filter((l) => l.kind !== "table");
    for (const [id, drawn] of this.layers) drawn.place({ visible: wanted.some((l) => l.id === id) });
    for (const l of wanted) {
      if (this.layers.has(l.id)) continue;
      const drawn = new LayerOnMap(this.map, `${this.base}/${l.id}`, {
        zIndex: this.#above(l.kind),
        isChosen: (id) => this.plan.stops.has(id),
        changed: () => this.plan.changed(),
      });
      this.layers.set(l.id, drawn);
      drawn.failure = (e) => this.plan.set({ failure: e.message });
      drawn.start().catch(drawn.failure);
    }
  }

  async #click(e) {
    const { plan } = this;
    if (plan.tool) return;
    const order = { point: 0, line: 1, polygon: 2 };
    const layers = plan.layers.filter((l) => this.layers.has(l.id)).sort((a, b) => order[a.kind] - order[b.kind]);
    for (const l of layers) {
      const id = await /** @type {LayerOnMap} */ (this.layers.get(l.id)).at(e.pixel);
      if (id) return turn(plan, id, l.id);
    }
  }

  /** What can be chosen of what is on the map, by caption. @returns {{id: string, layer: string, caption: string}[]} */
  get there() {
    return this.plan.layers.flatMap((l) =>
      (this.layers.get(l.id)?.state.features ?? []).map((f) => ({ id: f.id, layer: l.id, caption: f.caption })),
    );
  }

  /** Draws what is chosen. */
  draw() {
    this.#fit();
    this.#use(this.plan.tool);
    const { plan } = this;
    const now = JSON.stringify([plan.order, plan.ways.map((w) => w.stops.length), plan.shown, plan.travel, plan.area, plan.typed.allows]);
    if (now === this.#drawn) return;
    this.#drawn = now;
    for (const l of this.layers.values()) l.redraw();
    this.source.clear(true);
    const features = [];
    const ways = plan.ways.length ? plan.ways.map((w) => w.stops) : [plan.order];
    ways.forEach((stops, i) => features.push(...this.#way(stops, i, plan.split ? letter(i) : "")));
    const { start, end: last, back } = plan.travel;
    if (plan.area && plan.typed.allows !== ALLOWS.STOPS) features.push(this.#area(plan.area));
    if (start) features.push(this.#end(start, this.words.start));
    if (last && !back) features.push(this.#end(last, this.words.end));
    this.source.addFeatures(features);
    this.#look();
  }
  #way(stops, i, letterOf) {
    const { plan } = this;
    const out = [];
    const at = [];
    const { start, end: last, back } = plan.travel;
    if (start) at.push(maps.fromLonLat(start));
    stops.forEach((id, n) => {
      const spot = plan.stops.get(id)?.at;
      if (!spot) return;
      const place = maps.fromLonLat(spot);
      at.push(place);
      const f = new maps.Feature(new maps.Point(place));
      f.setStyle([chosenMark(id === plan.shown), number(letterOf + (n + 1))]);
      out.push(f);
    });
    if (back && start) at.push(maps.fromLonLat(start));
    else if (last) at.push(maps.fromLonLat(last));
    if (plan.ways.length && at.length > 1) {
      const line = new maps.Feature(new LineString(at));
      line.setStyle(wayStyle(i));
      out.push(line);
    }
    return out;
  }
  #area(shape) {
    const f = maps.featureOf(shape);
    f.setStyle(areaStyle);
    return f;
  }
  #end(at, word) {
    const f = new maps.Feature(new maps.Point(maps.fromLonLat(at)));
    f.setStyle(end(word));
    return f;
  }
  /** Brings the stop that is looked at into view. */
  #look() {
    const { shown } = this.plan;
    if (shown === this.#shown) return;
    this.#shown = shown;
    const at = this.plan.stops.get(shown)?.at;
    if (at) this.map.getView().animate({ center: maps.fromLonLat(at), duration: 200 });
  }

  /** Turns to what the map does with the next strokes. @param {string} tool */
  #use(tool) {
    if (tool === this.#tool) return;
    this.#tool = tool;
    if (this.#stroke) this.map.removeInteraction(this.#stroke);
    this.#stroke = null;
    if (!STROKES[tool]) return;
    this.#stroke = new Draw({ ...STROKES[tool], stopClick: true });
    this.#stroke.on("drawend", (e) => this.#done(tool, maps.format.writeGeometryObject(e.feature.getGeometry())));
    this.map.addInteraction(this.#stroke);
  }
  #done(tool, shape) {
    const { plan } = this;
    // the click that ends the stroke is none on a feature
    setTimeout(() => plan.set({ tool: "" }), 300);
    if (tool === "area") return plan.setArea(shape);
    if (tool === "start") return plan.setTravel({ start: within(shape.coordinates) });
    if (tool === "end") return plan.setTravel({ end: within(shape.coordinates), back: false });
    return choose(plan, { shape, ...(tool === "line" && { withinM: plan.withinM }) });
  }
}
