// Makes ready what opening a stop needs, while nobody waits for it: the engine is run once with each form of the round that is open.
import { whenIdle } from "../shell/view.js";
import { viewOf } from "../sheet/known.js";
import { loadEngine } from "../shell/engine.js";
import { book } from "./book.js";
import { offsetMinutes } from "./fix.js";
import { Near } from "./near.js";
import { workHash } from "./pack.js";
import { prepared } from "./prepared.js";

/** So long after a view stands, in milliseconds: somebody who knows where to go has pressed by then. */
const REST = 600;

/** Packs that are ready. @type {WeakSet<any>} */
const ready = new WeakSet();

const idle = () => new Promise((r) => void whenIdle(() => r(undefined)));

/**
 * What is run once so that the first stop opens as fast as the others: each form of a round on one of its features, with layers of its own; nothing is kept.
 * @param {any} pack @returns {Generator<() => Promise<unknown>>} the steps
 */
function* warmUp(pack) {
  for (const { id, layer } of pack.plan.forms) {
    const feature = pack.byId.get(pack.stops.find((s) => s.layer === layer)?.feature) ?? pack.features.find((f) => f.layer === layer);
    if (!feature) continue;
    const hash = workHash(pack, id);
    yield () => prepared(pack, hash, layer);
    let layers;
    yield async () => {
      const engine = await loadEngine();
      layers = engine.layers();
      await new Near(engine, pack, layers).to(feature.geometry);
    };
    yield async () => {
      const { work, form } = await prepared(pack, hash, layer);
      const start = { person: book.person, startedAt: new Date().toISOString(), offset: offsetMinutes(), edition: work.edition };
      viewOf(form.visit(JSON.stringify({ ...start, system: work.system }), JSON.stringify(feature), layers, ""))();
    };
  }
}

/** Begins with it; gives the function that ends it. @param {any} pack */
export function readyAhead(pack) {
  if (!pack || ready.has(pack)) return () => {};
  let wanted = true;
  const begin = async () => {
    try {
      for (const step of warmUp(pack)) {
        await idle();
        if (!wanted) return;
        await step();
      }
    } catch (e) {
      console.warn(e); // whoever opens a stop with that form is told why it can't run
    }
    ready.add(pack);
  };
  const wait = setTimeout(begin, REST);
  return () => {
    wanted = false;
    clearTimeout(wait);
  };
}
