// A layer on its page: which features are there, which card is open, what is ticked.
import * as maps from "../../map/map.js";
import { say } from "../../shell/say.js";
import { getJson } from "../../shell/server.js";

export class LayerState {
  /** @type {(anew?: boolean) => void} */
  changed;
  /** @type {any} */
  drawn;
  /** @type {any} */
  map;
  /** @type {string} */
  base;
  /** @type {any} */
  taken;
  /** @type {import("../../../types/border").FeatureCard | null} */
  card = null;
  beside = { pictures: [], visits: [] };
  chosen = "";
  found = "";
  failure = "";
  slow = false;
  /** A rule that could be asked of this layer. */
  ruleLike = "";
  /** The rule in its box, the one that is applied, and what is wrong with it. */
  rule = "";
  applied = "";
  ruleProblem = "";
  /** @type {string[]} */
  ticked = [];
  /** What is on the map. @type {any} */
  there = { count: 0, whole: true, drawn: true, features: [] };

  /** @param {{base: string, home: string, work: boolean, ruleLike: string, changed: () => void}} how `home` is the project's address, `work` whether the person sees its rounds and visits */
  constructor({ base, home, work, ruleLike, changed }) {
    Object.assign(this, { base, home, work, ruleLike, changed });
    this.chosen = location.hash.slice(1);
    this.rule = new URLSearchParams(location.search).get("filter") ?? "";
  }

  /** Takes the map over: the layer drawn on it, and where pictures were taken. @param {any} map @param {any} drawn @param {any} taken */
  use(map, drawn, taken) {
    Object.assign(this, { map, drawn, taken });
  }
  has(there) {
    this.there = there;
    this.changed();
  }
  fail(e) {
    this.failure = e.message;
    this.changed();
  }

  async load({ filter = "", outside = false }) {
    const { drawn } = this;
    const before = [drawn.filter, drawn.outside];
    Object.assign(drawn, { filter, outside });
    try {
      await drawn.load(true);
    } catch (e) {
      [drawn.filter, drawn.outside] = before;
      throw e;
    }
    if (drawn.extent() && (filter || outside)) maps.show(this.map, drawn.extent());
  }
  async apply(rule) {
    this.rule = rule.trim();
    this.ruleProblem = "";
    try {
      await this.load({ filter: this.rule });
      this.applied = this.rule;
      this.#address();
    } catch (e) {
      this.ruleProblem = e.message;
    }
    this.changed();
  }
  outside() {
    return this.load({ outside: true }).catch((e) => this.fail(e));
  }

  async pick(id) {
    this.chosen = id;
    this.drawn.redraw();
    this.#address();
    const at = `${this.base}/features/${id}`;
    const [card, beside] = await Promise.all([getJson(at), getJson(`${at}/visits`)]);
    if (this.chosen !== id) return;
    Object.assign(this, { card, beside });
    this.taken.show(beside.pictures);
    this.changed();
  }
  close() {
    this.card = null;
    this.chosen = "";
    this.taken.show([]);
    this.drawn.redraw();
    this.#address();
    this.changed();
  }
  #address() {
    const filter = this.applied ? `?filter=${encodeURIComponent(this.applied)}` : "";
    history.replaceState(null, "", location.pathname + filter + (this.chosen ? "#" + this.chosen : ""));
  }

  tick(id, on) {
    this.ticked = on ? [...this.ticked, id] : this.ticked.filter((x) => x !== id);
    this.changed();
  }
  find(text) {
    this.found = text;
    this.changed();
  }
  get all() {
    return this.there.features.map((f) => ({ id: f.id, caption: f.caption || say("desk.noCaption") }));
  }
}
