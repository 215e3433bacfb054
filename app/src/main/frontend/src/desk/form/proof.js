// The real features with which a form is filled while it is built, and what lies around them in the layers that are looked up.
import { getJson } from "../../shell/server.js";

const PAGE = 200;

/** The box around a geometry, `margin` degrees of latitude wider on each side. */
function around(geometry, margin) {
  const all = [];
  const walk = (c) => (typeof c[0] === "number" ? all.push(c) : c.forEach(walk));
  walk(geometry.coordinates);
  const [x, y] = [all.map((c) => c[0]), all.map((c) => c[1])];
  const wide = margin / Math.max(0.05, Math.cos((y[0] * Math.PI) / 180));
  return [Math.min(...x) - wide, Math.min(...y) - margin, Math.max(...x) + wide, Math.max(...y) + margin].map((d) => Number(d.toFixed(6)));
}

export class Proof {
  /** @type {number} */
  count;
  /** @type {any} */
  there;
  /** @type {string} */
  base;
  /** @type {any} */
  lookups;
  /** @type {any} */
  whole;
  /** @type {string} */
  project;
  /** @type {any} */
  indexes;
  /** Features that are at hand, by layer. @type {Map<string, any[]>} */
  around = new Map();
  /** How often something came. */
  seen = 0;
  /** `first` are the first features of `count`; `base` is the form's address below /api. */
  constructor({ base, project, first, count, lookups, indexes }) {
    Object.assign(this, { base, project, count, lookups, indexes, there: new Map(first.map((f, i) => [i, f])), whole: new Set() });
  }

  /** The feature at a place in the layer's order, with the look-ups around it at hand; undefined in an empty layer. */
  async at(i) {
    if (i < this.count && !this.there.has(i)) {
      const from = Math.floor(i / PAGE) * PAGE;
      (await getJson(`${this.base}/proof?from=${from}`)).forEach((f, k) => this.there.set(from + k, f));
    }
    const feature = this.there.get(i);
    await this.lookAround(feature);
    return feature;
  }

  /** Has the look-ups around a feature at hand. */
  async lookAround(feature) {
    for (const l of this.lookups) await this.look(l, feature);
  }

  /** A feature by its id, and where it stands in the layer's order. @param {string} id */
  async of(id) {
    const { at } = await getJson(`${this.base}/proof/${encodeURIComponent(id)}`);
    return { proof: await this.at(at), at };
  }

  /** A small layer comes whole, once; of a large one what lies around the feature, nearer and nearer until it is little enough. */
  async look(l, feature) {
    if (this.whole.has(l.id)) return;
    const features = `/api/p/${this.project}/layers/${l.id}/features`;
    let got = await getJson(features);
    if (got.whole) this.whole.add(l.id);
    // of what lies beyond the box that came, or of none at all, the engine says that it can't be told
    let box = [0, 0, 0, 0];
    for (let margin = 0.06; !got.whole && !got.drawn && feature?.geometry && margin > 0.0003; margin /= 4) {
      box = around(feature.geometry, margin);
      got = await getJson(`${features}?box=${box}`);
    }
    const complete = got.whole ? "" : JSON.stringify(got.drawn ? box : [0, 0, 0, 0]);
    this.indexes.add(l.id, JSON.stringify(l.schema), JSON.stringify(got.features), complete);
    this.#keep(l.id, got.features);
  }
  #keep(id, features) {
    this.around.set(id, features);
    this.seen++;
  }

  /** The features of the form's own layer around one of them. @param {string} layer @param {any} feature */
  async beside(layer, feature) {
    if (!feature?.geometry) return;
    const got = await getJson(`/api/p/${this.project}/layers/${layer}/features?box=${around(feature.geometry, 0.01)}`);
    if (got.drawn) this.#keep(layer, got.features);
  }
}
