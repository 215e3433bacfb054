// Of which type a feature is: the entry of its layer's legend that it falls into, as on the map.
import { entrySaid } from "../map/legend.js";
import { loadEngine } from "../shell/engine.js";

/** @typedef {{key: string, called: string, layer: string}} Type */
/** @typedef {{types: Type[], entriesOf: (feature: any) => string[]}} OfLayer */

/** By layer of a pack; made once. @type {WeakMap<any, OfLayer>} */
const known = new WeakMap();

const NONE = /** @type {OfLayer} */ ({ types: [], entriesOf: () => [] });

/** @returns {OfLayer} */
function read(engine, layer) {
  const { look, schema, name, features, layer: id } = layer;
  if (!look || schema.kind === "table") return NONE;
  const painting = engine.painting(JSON.stringify(look), JSON.stringify(schema));
  const plan = JSON.parse(painting.plan());
  if (plan.by === "one") return NONE;
  const keyOf = (k) => `${id}/${k}`;
  const drawn = (some) => JSON.parse(painting.drawn(JSON.stringify(some), new Date().toISOString()));
  const entries = new Map();
  const entriesIn = (d) => d.c.split(",").map(keyOf);
  const draw = (some) => drawn(some).forEach((d, i) => entries.set(some[i], entriesIn(d)));
  return {
    types: plan.entries.map((_, k) => ({ key: keyOf(k), called: entrySaid(plan, k, name), layer: id })),
    entriesOf: (feature) => {
      // all at once, when they are first asked for
      if (entries.size === 0) draw(features);
      // what was made here is another object at each reading; it has the values with which it was begun
      if (feature.made) return entriesIn(drawn([{ ...feature, properties: feature.made }])[0]);
      // what was found here is none of them
      if (!entries.has(feature)) draw([feature]);
      return entries.get(feature);
    },
  };
}

/** Makes the types of a pack known. @param {any} pack */
export async function readTypes(pack) {
  const engine = await loadEngine();
  for (const l of pack.layers) if (!known.has(l)) known.set(l, read(engine, l));
}

/** The types of a pack's features, once they were read. @param {any} pack @returns {Type[]} */
export const typesOf = (pack) => pack.layers.flatMap((l) => known.get(l)?.types ?? []);

/** Whether a feature is of a type. @param {any} pack @param {any} feature @param {string} key */
export function isOfType(pack, feature, key) {
  const layer = pack.layers.find((l) => l.layer === feature.layer);
  const of = layer && known.get(layer);
  return Boolean(of?.types.length) && of.entriesOf(feature).includes(key);
}
