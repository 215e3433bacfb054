// What visits of a pack run in: the compiled form and the look-up layers, made once.
import { loadEngine } from "../shell/engine.js";
import { inWords, say } from "../shell/say.js";
import { workOf } from "./pack.js";

/** Why a form can't be filled here. */
const problems = (engine, { form, schema }) =>
  inWords(engine.problems(JSON.stringify(form), JSON.stringify(schema)))
    .map((p) => p.message)
    .join("; ");

/** The engine's objects for a pack: the compiled form and the look-up layers. Kept while the page lives. */
const ready = new Map();

/** @param {any} pack @param {string} hash of what visits with the form are begun with @param {string} layer */
export async function prepared(pack, hash, layer) {
  const key = hash + Object.values(pack.parts).join();
  if (!ready.has(key)) {
    const engine = await loadEngine();
    const work = await workOf(hash);
    const form = engine.form(JSON.stringify(work.form), JSON.stringify(work.schema));
    if (!form) throw new Error(say("day.formCantRun", { why: problems(engine, work) }));
    const layers = engine.layers();
    const peers = pack.layers.find((l) => l.layer === layer);
    if (peers?.schema.fields.some((f) => f.unique)) layers.peers(JSON.stringify(peers.schema), JSON.stringify(peers.features));
    ready.set(key, { work, form, layers });
  }
  return ready.get(key);
}
