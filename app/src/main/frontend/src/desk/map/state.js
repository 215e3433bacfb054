// The project's map: which layers are drawn in which order, and over what; changed here, saved for everybody.
import { LayerOnMap } from "../../map/layer-on-map.js";
import { moved } from "../../shell/controls.js";
import { say } from "../../shell/say.js";
import { post } from "../../shell/server.js";

/** Layers lie above the ground, in their order. */
const GROUND = 10;

export class ProjectMapState {
  /** @type {(anew?: boolean) => void} */
  changed;
  /** @type {any} */
  map;
  /** @type {string} */
  project;
  /** @type {boolean} */
  may;
  told = "";
  failure = "";
  isDirty = false;
  /** Which layer is dragged; -1 for none. */
  dragged = -1;
  /** Layers that are drawn, by id. @type {Map<string, LayerOnMap>} */
  onMap = new Map();

  /** @param {{project: string, map: any, saved: import("../../../types/border").ProjectMap, may: boolean, changed: () => void}} how */
  constructor({ project, map, saved, may, changed }) {
    Object.assign(this, { project, map, may, changed });
    this.saved = saved;
    this.layers = saved.layers;
  }

  fail(e) {
    this.failure = e.message ?? e;
    this.changed();
  }
  touch() {
    Object.assign(this, { isDirty: true, told: say("desk.map.changed") });
    this.changed();
  }
  /** Puts what is drawn in its order, as strong as it is to be. */
  place() {
    const { length } = this.layers;
    this.layers.forEach((l, i) => this.onMap.get(l.id)?.place({ zIndex: GROUND + length - i, opacity: l.opacity, visible: l.on }));
  }
  /** Draws a layer that is on and not drawn yet. */
  async draw(l) {
    if (this.onMap.has(l.id) || !l.on) return;
    const drawn = new LayerOnMap(this.map, `/api/p/${this.project}/layers/${l.id}`, {});
    drawn.failure = (e) => this.fail(e);
    const load = drawn.load.bind(drawn);
    // a layer that was switched off stays so when the map moves
    drawn.load = async (anew) => {
      await load(anew);
      drawn.place({ visible: this.layers.find((x) => x.id === l.id)?.on ?? false });
    };
    this.onMap.set(l.id, drawn);
    try {
      await drawn.start();
    } catch (e) {
      this.fail(e);
    }
    this.place();
  }
  async turn(l, on) {
    l.on = on;
    this.touch();
    await this.draw(l);
    this.place();
    this.changed();
  }
  strength(l, opacity) {
    l.opacity = opacity;
    this.touch();
    this.place();
  }
  call(l, name) {
    l.shortName = name;
    this.touch();
  }
  move(i, by) {
    const to = i + by;
    if (!this.may || to < 0 || to >= this.layers.length) return;
    moved(this.layers, i, by);
    this.touch();
    this.place();
  }
  ground(id) {
    if (id === this.saved.basemap) return;
    this.saved.basemap = id;
    this.touch();
  }
  async save() {
    try {
      const { revision } = await post(`/api/p/${this.project}/map`, { ...this.saved, layers: this.layers });
      this.saved.revision = revision;
      Object.assign(this, { isDirty: false, told: say("desk.savedForAll"), failure: "" });
      this.changed();
    } catch (e) {
      this.fail(e);
    }
  }
  /** What all drawn layers take up; undefined when nothing is drawn. */
  extent() {
    const all = [...this.onMap.values()].map((d) => d.extent()).filter(Boolean);
    if (all.length === 0) return undefined;
    const end = (i, of) => of(...all.map((e) => e[i]));
    return [end(0, Math.min), end(1, Math.min), end(2, Math.max), end(3, Math.max)];
  }
}
