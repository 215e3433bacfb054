// What look-ups ask, near a place: of the thousands of features that a pack brings, the engine reads those around the stop that is open.
import * as store from "./store.js";

/** Features so far beyond what look-ups reach are at hand too, in metres, so that a pin can be moved a little without reading again. */
const BESIDE_M = 100;

/** So many cells that were read are kept. */
const KEPT = 40;

/** What is said of a layer, by the hash of its part; kept while the page lives. @type {Map<string, any>} */
const heads = new Map();
/** Cells as they were read, with the box of each feature, by the hash of their part. @type {Map<string, {features: any[], boxes: Float64Array}>} */
const cells = new Map();

/** @param {string} hash */
async function headOf(hash) {
  if (!heads.has(hash)) heads.set(hash, JSON.parse(await store.get("parts", hash)));
  return heads.get(hash);
}

/** @param {string} hash */
async function cellOf(hash) {
  const known = cells.get(hash);
  if (known) return known;
  const features = JSON.parse(await store.get("parts", hash));
  const cell = { features, boxes: boxesOf(features) };
  cells.set(hash, cell);
  if (cells.size > KEPT) cells.delete(/** @type {string} */ (cells.keys().next().value));
  return cell;
}

/** West, south, east and north of each feature, one after another. @param {any[]} features */
function boxesOf(features) {
  const out = new Float64Array(features.length * 4);
  features.forEach((f, i) => {
    const box = [Infinity, Infinity, -Infinity, -Infinity];
    if (f.geometry) grow(box, f.geometry.coordinates);
    out.set(box, i * 4);
  });
  return out;
}
function grow(box, c) {
  if (typeof c[0] === "number") {
    box[0] = Math.min(box[0], c[0]);
    box[1] = Math.min(box[1], c[1]);
    box[2] = Math.max(box[2], c[0]);
    box[3] = Math.max(box[3], c[1]);
  } else for (const part of c) grow(box, part);
}

/** Whether two boxes meet. @param {any} box @param {number[]} b */
const meets = ([w, s, e, n], b) => w <= b[2] && e >= b[0] && s <= b[3] && n >= b[1];

/** The features of a cell whose boxes meet one of some boxes; all for no boxes. @param {{features: any[], boxes: Float64Array}} cell @param {number[][]} around */
function meeting({ features, boxes }, around) {
  if (around.length === 0) return features;
  return features.filter((_, i) => around.some((b) => meets(boxes.subarray(i * 4, i * 4 + 4), b)));
}

/** What both boxes hold. */
const both = (a, b) => [Math.max(a[0], b[0]), Math.max(a[1], b[1]), Math.min(a[2], b[2]), Math.min(a[3], b[3])];

/** The look-up layers of a pack around the place where a visit is. */
export class Near {
  /** Where each layer is at hand, by its part; none for everywhere. @type {Map<string, number[] | null>} */
  #here = new Map();

  /** @param {any} engine @param {any} pack @param {any} layers the engine's */
  constructor(engine, pack, layers) {
    Object.assign(this, { engine, pack, layers });
  }

  /** The boxes that hold all that lies so near a geometry. @returns {number[][]} */
  #boxes(geometry, metres) {
    const { engine } = /** @type {any} */ (this);
    return JSON.parse(engine.shape(JSON.stringify({ op: "reach", geometry, metres }))).boxes ?? [];
  }

  /** Has at hand what look-ups from a place ask. @param {any} geometry null for nowhere */
  async to(geometry) {
    const { pack, layers } = /** @type {any} */ (this);
    for (const [name, hash] of Object.entries(pack.parts)) {
      if (!name.startsWith("lookup-")) continue;
      const head = await headOf(hash);
      if (head.missing || this.#has(name, head, geometry)) continue;
      if (!head.cells) {
        // an older pack has the features of a layer in one part, and does not say how far look-ups reach
        layers.addPart(JSON.stringify(head));
        this.#here.set(name, null);
        continue;
      }
      const around = geometry && (head.cells.length > 1 || head.beyond) ? this.#boxes(geometry, head.reachM + BESIDE_M) : [];
      const wanted = head.cells.filter((c) => around.length === 0 || around.some((b) => meets(c.box, b)));
      const features = [];
      for (const c of wanted) features.push(...meeting(await cellOf(pack.parts[c.part]), around));
      // over the date line there are two boxes: the first is told alone
      const known = [head.beyond, head.complete].find((b) => b && (around.length === 0 || meets(b, around[0]))) ?? head.complete;
      const complete = around.length === 0 ? head.complete : known ? both(around[0], known) : around[0];
      layers.addPart(JSON.stringify({ ...head, cells: undefined, complete, features }));
      this.#here.set(name, around.length === 0 ? null : complete);
    }
  }

  /** Whether all that is asked from a place is there already. */
  #has(name, head, geometry) {
    const here = this.#here.get(name);
    if (here === undefined) return false;
    if (here === null || !geometry) return true;
    return this.#boxes(geometry, head.reachM).every((b) => b[0] >= here[0] && b[1] >= here[1] && b[2] <= here[2] && b[3] <= here[3]);
  }
}
