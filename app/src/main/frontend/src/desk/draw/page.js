// Drawing on a layer: new features out of the legend, other shapes, parts and holes, splitting. Nothing is written before the button says so, and all of it can be undone until then.
import VectorLayer from "ol/layer/Vector.js";
import { toLonLat } from "ol/proj.js";
import VectorSource from "ol/source/Vector.js";
import { withBasemaps } from "../../map/basemaps.js";
import { LayerOnMap } from "../../map/layer-on-map.js";
import * as maps from "../../map/map.js";
import { loadEngine } from "../../shell/engine.js";
import { say } from "../../shell/say.js";
import { drawn, html } from "../../shell/view.js";
import { Edits } from "./edits.js";
import { writingFoot } from "./foot.js";
import { rowsPage } from "./rows.js";
import { others, working } from "./shapes.js";
import { measured, side } from "./side.js";
import { Drawing } from "./state.js";

const div = (more) => Object.assign(document.createElement("div"), more);

/** The page's parts, each drawn on its own. @param {HTMLElement} box */
function parts(box) {
  const target = div({ className: "map tall", tabIndex: 0, ariaLabel: say("desk.draw.map") });
  const size = div({ className: "measured", id: "measured", role: "status" });
  target.append(size);
  const beside = div({ className: "tall-side overflow-y-auto pe-1", id: "draw-side" });
  const foot = div({});
  drawn(
    box,
    () =>
      html`<div class="beside">
        ${target}
        <div>${beside}${foot}</div>
      </div>`,
  ).now();
  return { target, size, beside, foot };
}

/** Features that are being changed are drawn as they will be, in place of as they are. */
function withoutChanged(onMap, edits, inHand) {
  const paint = onMap.paint.bind(onMap);
  const hidden = (id) => edits.get(id)?.geometry || edits.get(id)?.removed || inHand() === id;
  onMap.paint = (plan) => {
    paint(plan);
    const { style } = onMap.painter;
    onMap.vectors.setStyle((f, r) => (hidden(f.getId()) ? [] : style(f, r)));
  };
}

/** Keys and clicks on the map. */
function listen(map, state) {
  map.on("singleclick", async (e) => {
    try {
      if (["split", "less", "fill"].includes(state.mode)) return state.act(toLonLat(e.coordinate));
      if (state.mode !== "choose" && state.mode !== "reshape") return;
      const mine = map.forEachFeatureAtPixel(e.pixel, (f) => f.getId(), {
        layerFilter: (l) => l.getSource?.() === state.work,
        hitTolerance: 8,
      });
      const id = mine ?? (await state.onMap.at(e.pixel));
      if (id && id !== state.current?.id) await state.choose(id);
    } catch (error) {
      state.say(error.message);
    }
  });
  document.addEventListener("keydown", (e) => {
    if (/** @type {Element} */ (e.target).matches("input, textarea, select")) return;
    if ((e.ctrlKey || e.metaKey) && e.key === "z") {
      e.preventDefault();
      state.undo();
    }
    if (e.key === "Enter" && state.kind !== "point") state.tools.draw?.finishDrawing();
    if (e.key === "Escape") {
      state.tools.draw?.abortDrawing();
      state.use(state.current ? "reshape" : "choose");
    }
  });
  addEventListener("beforeunload", (e) => {
    if (state.edits.count > 0) e.preventDefault();
  });
}

/** @param {HTMLElement} box */
export async function drawPage(box) {
  const { project = "", layer, kind = "", system = "", definition = "", extent } = box.dataset;
  if (kind === "table") return rowsPage(box);
  const schema = JSON.parse(box.dataset.schema ?? "{}");
  const base = `/api/p/${project}/layers/${layer}`;
  const engine = await loadEngine();
  const { target, size, beside, foot } = parts(box);
  const map = maps.makeMap(target);
  maps.showText(map, extent);
  await withBasemaps(map, project);

  const edits = new Edits({ base, engine, schema });
  const onMap = new LayerOnMap(map, base, {});
  const work = new VectorSource();
  /** @type {() => void} */
  let draw = () => {};
  const changed = () => draw();
  const state = new Drawing({ map, base, kind, schema, system, definition, engine, edits, onMap, work, changed });
  onMap.failure = (e) => state.say(e.message);
  withoutChanged(onMap, edits, () => state.current?.id);
  map.addLayer(new VectorLayer({ source: work, zIndex: 50, style: (f) => (f.getId() === state.current?.id ? working : others) }));
  await onMap.start();

  const footOf = () => ({
    count: edits.count,
    canUndo: edits.undone.can || state.mode === "draw",
    told: state.told,
    busy: state.busy,
    write: () => state.write(),
    undo: () => state.undo(),
    label: /** @type {const} */ ("desk.draw.writeChanges"),
  });
  const all = [drawn(beside, () => side(state)), drawn(foot, () => writingFoot(footOf())), drawn(size, () => measured(state))];
  draw = () => {
    size.classList.toggle("faulty", Boolean(state.measured?.fault));
    all.forEach((part) => part());
  };
  listen(map, state);
  state.use("choose");
  const asked = location.hash.slice(1);
  if (asked) await state.choose(asked).catch((e) => state.say(e.message));
  box.dataset.ready = "true";
}
