// Drawing on a layer: which feature is in hand, with which tool, and what was changed so far.
import Feature from "ol/Feature.js";
import { fromLonLat } from "ol/proj.js";
import * as maps from "../../map/map.js";
import { inWords, say } from "../../shell/say.js";
import { getJson } from "../../shell/server.js";
import { Unfit } from "./edits.js";
import { Tools } from "./tools.js";
import { asStood } from "./values.js";

/** @type {Record<string, import("../../shell/say.js").MessageKey>} */
const CANT = { split: "desk.draw.cantSplit", less: "desk.draw.onePart", fill: "desk.draw.noHole" };

export class Drawing {
  /** @type {any} */
  engine;
  /** @type {any} */
  edits;
  /** @type {(anew?: boolean) => void} */
  changed;
  /** @type {any} */
  work;
  /** @type {any} */
  onMap;
  /** @type {string} */
  kind;
  /** @type {string} */
  base;
  /** @type {any} */
  schema;
  /** @type {string} */
  system;
  /** @type {string} */
  definition;
  /** @type {any} */
  map;
  current = null;
  mode = "choose";
  /** The legend's entry that is being made. @type {any} */
  making = null;
  failure = "";
  told = "";
  busy = false;
  snapping = true;
  /** What is drawn and not written, as it stands. @type {any} */
  measured = null;

  /**
   * @param {{map: any, base: string, kind: string, schema: any, system: string, definition: string, engine: any, edits: any, onMap: any, work: any, changed: () => void}} how
   *   `onMap` is the layer on the map, `work` the source of shapes that were changed
   */
  constructor(how) {
    Object.assign(this, how);
    this.tools = new Tools({
      map: how.map,
      kind: how.kind,
      work: how.work,
      features: how.onMap.source,
      ofMap: (geometry) => JSON.parse(maps.format.writeGeometry(geometry, { decimals: 9 })),
      measure: (geometry) => this.measure(geometry),
      changed: (tool, geometry) => {
        this.edit(this.current, { geometry });
        this.use(tool);
      },
      finished: (tool, geometry) => this.finished(tool, geometry),
    });
  }

  /** Asks the engine about shapes. @param {Record<string, unknown>} what */
  shape(what) {
    return inWords(this.engine.shape(JSON.stringify(what)));
  }
  geometryOf(id) {
    return this.edits.get(id)?.geometry ?? (this.current?.id === id ? this.current.geometry : null);
  }

  say(failure, told = "") {
    Object.assign(this, { failure, told });
    this.changed();
  }

  /** Puts all that changed, and the feature in hand, on the map. */
  redraw() {
    this.work.clear(true);
    const all = new Map([...this.edits.all].filter(([, e]) => !e.removed).map(([id, e]) => [id, e.geometry]));
    if (this.current && !this.edits.get(this.current.id)?.removed) all.set(this.current.id, this.geometryOf(this.current.id));
    for (const [id, g] of all) {
      if (!g) continue;
      const f = new Feature(/** @type {any} */ (maps.format.readGeometry(g)));
      f.setId(id);
      this.work.addFeature(f);
    }
    this.onMap.redraw();
    this.measure();
  }

  measure(geometry = this.current && this.geometryOf(this.current.id)) {
    const m = geometry && this.kind !== "point" ? this.shape({ op: "measure", kind: this.kind, geometry }) : {};
    // a shape without a corner is no fault while somebody begins
    this.measured = m.lengthM === undefined ? null : { ...m, fault: m.empty ? "" : m.fault };
    this.changed();
  }

  /** A change of a feature, after which the work is drawn anew. */
  edit(feature, part) {
    this.edits.keep(this.current);
    this.edits.put(feature, part);
    this.told = "";
    this.failure = "";
    this.redraw();
  }
  undo() {
    if (this.tools.sketching) return this.tools.draw?.removeLastPoint();
    const was = this.edits.undo();
    if (!was) return;
    this.current = was.page;
    this.redraw();
    this.use(this.mode === "draw" ? "draw" : this.current ? "reshape" : "choose");
  }

  /** Takes a tool into hand. @param {string} next */
  use(next) {
    this.mode = next;
    if (this.current) this.redraw();
    this.tools.use(next, this.current && this.work.getFeatureById(this.current.id), this.snapping);
    this.changed();
  }
  leave() {
    this.current = null;
    this.redraw();
    this.use("choose");
  }
  /** Begins features of an entry of the legend. @param {{i: number, said: string, preset: any}} making */
  make(making) {
    this.making = making;
    this.current = null;
    this.redraw();
    this.use("draw");
  }

  finished(what, geometry) {
    if (what === "draw") return this.#made(geometry);
    const got = this.shape({ op: what, geometry: this.geometryOf(this.current.id), with: geometry });
    if (got.geometry) this.edit(this.current, { geometry: got.geometry });
    else this.failure = what === "hole" ? say("desk.draw.holeOutside") : say("desk.draw.partNotAdded");
    setTimeout(() => this.use("reshape"));
  }
  #made(geometry) {
    this.edits.keep(this.current);
    const { said, preset, named } = this.making;
    const caption = named ? say("desk.draw.newOf", { entry: said }) : say("desk.draw.aNew");
    this.current = { id: crypto.randomUUID(), isNew: true, version: 0, geometry, caption, stood: {} };
    const typed = Object.fromEntries(Object.entries(preset).map(([k, v]) => [k, asStood(v)]));
    this.edits.put(this.current, { geometry, typed });
    this.failure = "";
    this.told = say("desk.draw.drawn");
    this.redraw();
    // the next click must not begin another one at once
    setTimeout(() => this.use(this.kind === "point" ? "draw" : "reshape"));
  }

  async choose(id) {
    const waiting = this.edits.get(id);
    if (waiting?.isNew) this.current = { ...waiting, caption: waiting.caption ?? say("desk.draw.newFeature") };
    else {
      const f = await getJson(`${this.base}/features/${id}`);
      this.current = { id, version: f.version, geometry: f.geometry, caption: f.caption || say("desk.noCaption"), stood: f.properties };
    }
    this.failure = "";
    this.redraw();
    this.use("reshape");
  }

  /** Splitting, and taking parts and holes away, at a place. @param {number[]} at longitude and latitude */
  act([lon, lat]) {
    const got = this.shape({ op: this.mode, geometry: this.geometryOf(this.current.id), lon, lat });
    if (!got.geometry) this.failure = say(CANT[this.mode]);
    else if (this.mode === "split") this.#split(got);
    else this.edit(this.current, { geometry: got.geometry });
    this.use("reshape");
  }
  /** The second part is a new feature with the same values, but for those that are the first one's alone. */
  #split({ geometry, rest }) {
    this.edits.keep(this.current);
    const before = this.edits.put(this.current, { geometry });
    const own = new Set(this.schema.fields.filter((f) => f.unique).map((f) => f.name));
    const shared = (all) => Object.fromEntries(Object.entries(all ?? {}).filter(([k]) => !own.has(k)));
    const second = { id: crypto.randomUUID(), isNew: true, stood: shared(before.stood) };
    const caption = say("desk.draw.secondPart", { caption: this.current.caption });
    this.edits.put(second, { geometry: rest, typed: shared(before.typed), like: before.isNew ? before.like : this.current.id, caption });
    this.failure = "";
    this.told = say("desk.draw.split");
    this.redraw();
  }
  /** Takes the feature in hand away; a new one was never there. */
  remove() {
    const e = this.edits.get(this.current.id);
    if (!e?.isNew) this.edit(this.current, { removed: true });
    else {
      this.edits.keep(this.current);
      this.edits.all.delete(this.current.id);
      this.current = null;
      this.redraw();
    }
    this.use("choose");
  }

  /** A position that was typed; true when there is such a place. @param {string} text */
  typed(text) {
    const got = this.shape({ op: "typed", text, code: this.system, definition: this.definition });
    if (!got.at) return void this.say(got.message);
    const at = fromLonLat(got.at);
    const point = { type: "Point", coordinates: got.at };
    if (this.tools.draw && this.kind === "point" && this.mode === "draw") this.finished("draw", point);
    else if (this.tools.draw) this.tools.draw.appendCoordinates([at]);
    else if (this.current && this.kind === "point") this.edit(this.current, { geometry: point });
    this.map.getView().animate({ center: at, duration: 200 });
    this.say("", say("desk.draw.there", { where: got.message }));
    return true;
  }

  /** Hears a value of the feature in hand; a change of one draws nothing anew on the map. */
  value(feature, name, typed, again) {
    if (!again) this.edits.keep(this.current);
    this.told = "";
    this.edits.type(feature, name, typed);
    this.changed();
  }

  async write() {
    this.busy = true;
    this.changed();
    try {
      const n = await this.edits.write();
      this.current = null;
      Object.assign(this, { failure: "", told: say("desk.draw.written", { n }) });
      await this.onMap.load(true);
      this.redraw();
      this.use("choose");
    } catch (e) {
      if (e instanceof Unfit && e.id !== this.current?.id) await this.choose(e.id);
      this.say(e.message);
    } finally {
      this.busy = false;
      this.changed();
    }
  }
}
