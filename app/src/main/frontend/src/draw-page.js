// Drawing on a layer: new features out of the legend, other shapes, parts and holes, splitting. Nothing is written before the button says so, and all of it can be undone until then.
import Collection from "ol/Collection.js";
import Feature from "ol/Feature.js";
import Draw from "ol/interaction/Draw.js";
import Modify from "ol/interaction/Modify.js";
import Snap from "ol/interaction/Snap.js";
import Translate from "ol/interaction/Translate.js";
import VectorLayer from "ol/layer/Vector.js";
import { fromLonLat, toLonLat } from "ol/proj.js";
import VectorSource from "ol/source/Vector.js";
import CircleStyle from "ol/style/Circle.js";
import Fill from "ol/style/Fill.js";
import MultiPoint from "ol/geom/MultiPoint.js";
import Stroke from "ol/style/Stroke.js";
import Style from "ol/style/Style.js";
import { request } from "./api.js";
import { withBasemaps } from "./basemaps.js";
import { Edits, Unfit, writingFoot } from "./desk-edits.js";
import { h } from "./dom.js";
import { loadEngine } from "./engine.js";
import { LayerOnMap } from "./layer-on-map.js";
import { entrySaid, url } from "./look.js";
import * as maps from "./map.js";
import { rowsPage } from "./rows-page.js";
import { asTyped, valuesForm } from "./values-form.js";

const HEATHER = "#6a3d7c";
const TYPE = { point: "Point", line: "LineString", polygon: "Polygon" };
const fixed = (n, d) => n.toLocaleString("en", { minimumFractionDigits: d, maximumFractionDigits: d });
export const lengthSaid = (m) => (m < 10_000 ? `${fixed(m, 1)} m` : `${fixed(m / 1000, 3)} km`);
export const areaSaid = (m2) => (m2 < 10_000 ? `${fixed(m2, 0)} m²` : `${fixed(m2 / 10_000, 2)} ha`);

const vertices = new Style({
  image: new CircleStyle({ radius: 4, fill: new Fill({ color: "#fff" }), stroke: new Stroke({ color: HEATHER, width: 2 }) }),
  geometry: (f) => {
    const out = [];
    const walk = (c) => (typeof c[0] === "number" ? out.push(c) : c.forEach(walk));
    walk(f.getGeometry().getCoordinates());
    return out.length > 2000 ? undefined : new MultiPoint(out);
  },
});
const working = [
  new Style({ stroke: new Stroke({ color: "#fff", width: 6 }) }),
  new Style({ stroke: new Stroke({ color: HEATHER, width: 3 }), fill: new Fill({ color: HEATHER + "2e" }), image: new CircleStyle({ radius: 8, fill: new Fill({ color: HEATHER }), stroke: new Stroke({ color: "#fff", width: 2 }) }) }),
  vertices,
];
const others = new Style({ stroke: new Stroke({ color: HEATHER, width: 2, lineDash: [6, 4] }), fill: new Fill({ color: HEATHER + "18" }), image: new CircleStyle({ radius: 6, fill: new Fill({ color: HEATHER + "aa" }), stroke: new Stroke({ color: "#fff", width: 1.5 }) }) });

export async function drawPage(box) {
  const { project, layer, kind, system, definition } = box.dataset;
  if (kind === "table") return rowsPage(box);
  const schema = JSON.parse(box.dataset.schema);
  const base = `/api/p/${project}/layers/${layer}`;
  const engine = await loadEngine();
  const shape = (o) => JSON.parse(engine.shape(JSON.stringify(o)));

  const target = h("div", { class: "map h-[calc(100dvh-200px)] min-h-[480px]", tabindex: "0", "aria-label": "Map to draw on; positions can be typed beside it" });
  const measured = h("div", { class: "measured", role: "status", id: "measured" });
  target.append(measured);
  const side = h("div", { class: "h-[calc(100dvh-300px)] min-h-[380px] overflow-y-auto pr-1", id: "draw-side" });
  const foot = writingFoot({ write: () => write(), undo: () => undo(), one: "change", many: "changes" });
  box.replaceChildren(h("div", { class: "grid gap-4 lg:grid-cols-[1fr_340px]" }, target, h("div", {}, side, foot.element)));

  const map = maps.makeMap(target);
  maps.showText(map, box.dataset.extent);
  await withBasemaps(map, project);

  /** What will be written, by feature: the newest shape and values. */
  const edits = new Edits({ base, engine, schema });
  let current = null;
  let mode = "choose";
  let making = null;
  let failure = "";
  let told = "";
  let snapping = true;

  const drawn = new LayerOnMap(map, base, {});
  drawn.failure = (e) => say(e.message);
  const paint = drawn.paint.bind(drawn);
  // features that are being changed are drawn by the work layer, as they will be
  drawn.paint = (plan) => {
    paint(plan);
    const style = drawn.painter.style;
    drawn.vectors.setStyle((f, r) => (edits.get(f.getId())?.geometry || edits.get(f.getId())?.removed || current?.id === f.getId() ? [] : style(f, r)));
  };
  const work = new VectorSource();
  map.addLayer(new VectorLayer({ source: work, zIndex: 50, style: (f) => (f.getId() === current?.id ? working : others) }));
  await drawn.start();

  function say(message) {
    failure = message;
    render();
  }
  const toMap = (geometry) => maps.format.readGeometry(geometry);
  const ofMap = (geometry) => JSON.parse(maps.format.writeGeometry(geometry, { decimals: 9 }));
  const geometryOf = (id) => edits.get(id)?.geometry ?? (current?.id === id ? current.geometry : null);

  /** The features of the work layer: all that changed, and the chosen one. */
  function redraw() {
    work.clear(true);
    const all = new Map([...edits.all].filter(([, e]) => !e.removed).map(([id, e]) => [id, e.geometry]));
    if (current && !edits.get(current.id)?.removed) all.set(current.id, geometryOf(current.id));
    for (const [id, g] of all) {
      if (!g) continue;
      const f = new Feature(toMap(g));
      f.setId(id);
      work.addFeature(f);
    }
    drawn.redraw();
    measure();
  }

  function measure(geometry = current && geometryOf(current.id)) {
    measured.replaceChildren();
    measured.classList.remove("faulty");
    if (!geometry || kind === "point") return;
    const m = shape({ op: "measure", kind, geometry });
    if (m.lengthM === undefined) return;
    measured.append(kind === "line" ? `Length ${lengthSaid(m.lengthM)}` : `Area ${areaSaid(m.areaM2)} · edge ${lengthSaid(m.lengthM)}`);
    if (m.fault && m.fault !== "nothing is drawn yet") {
      measured.classList.add("faulty");
      measured.append(h("strong", {}, ` · ${m.fault}`));
    }
  }

  const keep = () => edits.keep(current);
  /** A change of a feature, after which the work is drawn anew. */
  function edit(feature, part) {
    keep();
    edits.put(feature, part);
    told = "";
    failure = "";
    redraw();
    render();
  }
  function undo() {
    if (sketching) return draw.removeLastPoint();
    const was = edits.undo();
    if (!was) return;
    current = was.page;
    use(mode === "draw" ? "draw" : current ? "reshape" : "choose");
    redraw();
    render();
  }

  // one tool at a time
  let tools = [];
  let draw = null;
  let sketching = false;
  function use(next, more = {}) {
    for (const t of tools) map.removeInteraction(t);
    tools = [];
    draw = null;
    sketching = false;
    mode = next;
    const add = (t) => {
      map.addInteraction(t);
      tools.push(t);
      return t;
    };
    const chosen = () => new Collection(current && work.getFeatureById(current.id) ? [work.getFeatureById(current.id)] : []);
    if (next === "reshape" && current) {
      redraw();
      const m = add(new Modify({ features: chosen(), pixelTolerance: 12, deleteCondition: (e) => e.type === "singleclick" && e.originalEvent.altKey, style: new Style({ image: new CircleStyle({ radius: 7, fill: new Fill({ color: "#d9a400" }), stroke: new Stroke({ color: "#1f2a30", width: 2 }) }) }) }));
      m.on("modifyend", (e) => {
        const f = e.features.item(0);
        edit(current, { geometry: ofMap(f.getGeometry()) });
        use("reshape");
      });
      work.getFeatureById(current.id)?.getGeometry().on("change", (e) => measure(ofMap(e.target)));
    }
    if (next === "move" && current) {
      redraw();
      const t = add(new Translate({ features: chosen(), hitTolerance: 8 }));
      t.on("translateend", (e) => {
        edit(current, { geometry: ofMap(e.features.item(0).getGeometry()) });
        use("move");
      });
    }
    if (next === "draw" || next === "part" || next === "hole") {
      const type = next === "hole" ? "Polygon" : TYPE[kind];
      draw = add(new Draw({ type, stopClick: true, snapTolerance: 10, style: working.slice(0, 2) }));
      draw.on("drawstart", (e) => {
        sketching = true;
        e.feature.getGeometry().on("change", (c) => measure(ofMap(c.target)));
      });
      // with a body: a listener that gives false back stops the event
      draw.on(["drawend", "drawabort"], () => {
        sketching = false;
      });
      draw.on("drawend", (e) => finished(next, ofMap(e.feature.getGeometry()), more));
    }
    if (snapping && ["reshape", "move", "draw", "part", "hole"].includes(next)) {
      add(new Snap({ source: drawn.source, pixelTolerance: 12 }));
      add(new Snap({ source: work, pixelTolerance: 12 }));
    }
    map.getTargetElement().style.cursor = next === "choose" ? "" : "crosshair";
    render();
  }

  function finished(what, geometry) {
    if (what === "draw") {
      const id = crypto.randomUUID();
      keep();
      current = { id, isNew: true, version: 0, geometry, caption: making.said === "New feature" ? "A new feature" : `New: ${making.said}`, stood: {} };
      edits.put(current, { geometry, typed: Object.fromEntries(Object.entries(making.preset).map(([k, v]) => [k, asTyped(v)])) });
      told = "Drawn. Fill its values; all is written with the button below.";
      failure = "";
      redraw();
      // the next click must not begin another one at once
      setTimeout(() => use(kind === "point" ? "draw" : "reshape"));
      return;
    }
    const got = shape({ op: what, geometry: geometryOf(current.id), with: geometry });
    if (!got.geometry) failure = what === "hole" ? "A hole must lie within the area, all of it. Nothing was changed." : "The part could not be added. Nothing was changed.";
    else edit(current, { geometry: got.geometry });
    setTimeout(() => use("reshape"));
  }

  async function choose(id) {
    const waiting = edits.get(id);
    if (waiting?.isNew) current = { ...waiting, caption: waiting.caption ?? "New feature" };
    else {
      const f = await (await request(`${base}/features/${id}`)).json();
      current = { id, version: f.version, geometry: f.geometry, caption: f.caption || "(no caption)", stood: f.properties };
    }
    failure = "";
    redraw();
    use("reshape");
  }

  map.on("singleclick", async (e) => {
    try {
      if (["split", "less", "fill"].includes(mode)) return act(toLonLat(e.coordinate));
      if (mode !== "choose" && mode !== "reshape") return;
      const mine = map.forEachFeatureAtPixel(e.pixel, (f) => f.getId(), { layerFilter: (l) => l.getSource?.() === work, hitTolerance: 8 });
      const id = mine ?? (await drawn.at(e.pixel));
      if (id && id !== current?.id) await choose(id);
    } catch (error) {
      say(error.message);
    }
  });

  /** Splitting, and taking parts and holes away, at a place. */
  function act([lon, lat]) {
    const got = shape({ op: mode, geometry: geometryOf(current.id), lon, lat });
    if (!got.geometry) {
      failure = { split: "The line can't be split there: one side would have no length.", less: "There is only one part; remove the feature instead.", fill: "There is no hole there." }[mode] + " Nothing was changed.";
      return use("reshape");
    }
    if (mode === "split") {
      keep();
      const id = crypto.randomUUID();
      const before = edits.put(current, { geometry: got.geometry });
      const own = new Set(schema.fields.filter((f) => f.unique).map((f) => f.name));
      const rest = { id, isNew: true, stood: Object.fromEntries(Object.entries(before.stood ?? {}).filter(([k]) => !own.has(k))) };
      edits.put(rest, { geometry: got.rest, typed: Object.fromEntries(Object.entries(before.typed).filter(([k]) => !own.has(k))), like: before.isNew ? before.like : current.id, caption: `${current.caption}, second part` });
      told = "Split: the second part is a new feature with the same values.";
      failure = "";
      redraw();
    } else edit(current, { geometry: got.geometry });
    use("reshape");
  }

  function typed(event) {
    event.preventDefault();
    const input = side.querySelector("#typed");
    const got = shape({ op: "typed", text: input.value, code: system, definition });
    if (!got.at) {
      failure = got.message;
      told = "";
      return render();
    }
    const at = fromLonLat(got.at);
    failure = "";
    if (draw && kind === "point" && mode === "draw") finished("draw", { type: "Point", coordinates: got.at });
    else if (draw) draw.appendCoordinates([at]);
    else if (current && kind === "point") edit(current, { geometry: { type: "Point", coordinates: got.at } });
    told = `There: ${got.message}`;
    map.getView().animate({ center: at, duration: 200 });
    input.value = "";
    render();
    side.querySelector("#typed")?.focus();
  }

  async function write() {
    foot.busy();
    try {
      const n = await edits.write();
      current = null;
      told = `Written: ${n} ${n === 1 ? "change" : "changes"}. It can be taken back as a whole in the layer's history.`;
      failure = "";
      await drawn.load(true);
      use("choose");
      redraw();
    } catch (e) {
      if (e instanceof Unfit && e.id !== current?.id) await choose(e.id);
      say(e.message);
    }
  }

  const tool = (id, label, ok = true, action = () => use(id)) => ok && h("button", { type: "button", "data-tool": id, "aria-pressed": String(mode === id), onclick: action }, label);
  const HINTS = {
    choose: "Click a feature to change its shape, or choose below what to make.",
    reshape: "Drag a corner, or a line to make a corner. Alt and a click take a corner away.",
    move: "Drag the feature to its place.",
    draw: kind === "point" ? "Click where it stands." : "Click corner by corner; a double click ends it.",
    part: "Draw the part; a double click ends it.",
    hole: "Draw the hole within the area; a double click ends it.",
    split: "Click the line where it is to be split.",
    less: "Click the part to take away.",
    fill: "Click into the hole to take away.",
  };

  function chosenCard() {
    if (!current) return null;
    const e = edits.get(current.id);
    const line = kind === "line";
    const area = kind === "polygon";
    return h("div", { class: "card mb-3", id: "chosen" },
      h("div", { class: "flex justify-between gap-2" }, h("h2", {}, current.caption), h("button", { type: "button", class: "plain", onclick: () => {
        current = null;
        redraw();
        use("choose");
      } }, "Done")),
      e?.removed
        ? h("p", {}, "Will be taken away.")
        : h("div", { class: "knobs mt-2" }, tool("reshape", kind === "point" ? "Move by hand" : "Reshape"), kind !== "point" && tool("move", "Move"), line && tool("split", "Split"), kind !== "point" && tool("part", "Add a part"), kind !== "point" && tool("less", "Take a part away"), area && tool("hole", "Add a hole"), area && tool("fill", "Take a hole away"),
            h("button", { type: "button", "data-tool": "remove", onclick: () => {
              if (e?.isNew) {
                keep();
                edits.all.delete(current.id);
                current = null;
                redraw();
                use("choose");
              } else {
                edit(current, { removed: true });
                use("choose");
              }
            } }, "Remove the feature")),
      !e?.removed && valuesOf(current));
  }

  /** The values of the chosen feature; a change of one redraws nothing, so that the next field is at hand. */
  function valuesOf(feature) {
    const e = edits.of(feature);
    return valuesForm({ id: e.id, schema, typed: e.typed, stood: e.stood ?? {}, isNew: e.isNew && !e.like, faults: edits.faults[e.id] ?? {}, changed: (name, typed, again) => {
      if (!again) keep();
      told = "";
      const wrong = edits.type(feature, name, typed);
      renderFoot();
      return wrong;
    } });
  }

  /** A position that is typed; it stands on top while there is something to put there. */
  function typedCard() {
    return h("form", { class: "card mb-3", onsubmit: typed },
      h("label", { class: "label", for: "typed" }, "A position, typed"),
      h("div", { class: "flex gap-2" }, h("input", { class: "flex-1 min-w-0 code", id: "typed", placeholder: "57.9012, -10.2034", autocomplete: "off" }), h("button", { type: "submit", disabled: !draw && !(current && kind === "point") }, "Put it there")),
      h("p", { class: "quiet text-sm mt-1" }, `Degrees, easting and northing in ${system}, a grid reference, geo: or WKT.`));
  }

  function render() {
    const plan = drawn.plan;
    side.replaceChildren(
      ...[
        failure && h("p", { class: "problem", role: "alert" }, failure),
        h("p", { class: "mb-2", id: "draw-hint" }, HINTS[mode]),
        draw || (current && kind === "point") ? typedCard() : null,
        chosenCard(),
        h("div", { class: "card mb-3" },
          h("h2", {}, "Make a feature"),
          h("ul", { class: "legend mt-1", id: "make-from" }, plan.entries.map((e, i) => {
            const said = entrySaid(plan, i, "New feature");
            return h("li", {}, h("button", { type: "button", class: "plain w-full justify-start", "data-make": String(i), "aria-pressed": String(mode === "draw" && making?.i === i), onclick: () => {
              making = { i, said, preset: e.preset ?? {} };
              current = null;
              redraw();
              use("draw");
            } }, h("img", { src: url(e.symbol), alt: "" }), said));
          }))),
        draw || current ? null : typedCard(),
        h("label", { class: "flex gap-2 items-center" }, h("input", { type: "checkbox", checked: snapping, id: "snapping", onchange: (e) => {
          snapping = e.target.checked;
          use(mode);
        } }), "Snap to corners and edges"),
        !drawn.state.drawn && h("p", { class: "told mt-2" }, "Zoom in until fewer than 5,000 features are in view; then they can be snapped to."),
      ].filter(Boolean));
    renderFoot();
  }

  function renderFoot() {
    foot.show({ count: edits.count, canUndo: edits.back.length > 0 || mode === "draw", told });
  }

  document.addEventListener("keydown", (e) => {
    if (e.target.matches("input, textarea, select")) return;
    if ((e.ctrlKey || e.metaKey) && e.key === "z") {
      e.preventDefault();
      undo();
    }
    if (e.key === "Enter" && draw && kind !== "point") draw.finishDrawing();
    if (e.key === "Escape") {
      draw?.abortDrawing();
      use(current ? "reshape" : "choose");
    }
  });
  addEventListener("beforeunload", (e) => {
    if (edits.count > 0) e.preventDefault();
  });
  const asked = location.hash.slice(1);
  use("choose");
  if (asked) await choose(asked).catch((e) => say(e.message));
  box.dataset.ready = "true";
}
