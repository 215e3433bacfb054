// Choosing features for a round: the server finds them, by shape, rule, tags or past visits, on layers of any size.
import { say } from "../../shell/say.js";
import { post } from "../../shell/server.js";

/** So many tags are named. */
const NAMED = 30;

/** @typedef {import("./plan.js").Plan} Plan @typedef {import("./plan.js").Stop} Stop */

/** Asks for features of the layers of its forms. @param {Plan} plan @param {Record<string, unknown>} how @param {string[]} [layers] @returns {Promise<import("../../../types/border").Chosen>} */
const ask = (plan, how, layers = plan.layers.map((l) => l.id)) => post(`${plan.base}/choosing`, { layers, ...how });

/** All that was found, as stops. @param {import("../../../types/border").Chosen} got @returns {Stop[]} */
const spots = (got) => got.layers.flatMap((l) => l.features.map((f) => ({ ...f, layer: l.layer, note: "", pictures: [] })));

const sum = (got) => got.layers.reduce((n, l) => n + l.found, 0);

/** Whether more was found than is given; it is told then. */
function tooMany(plan, got) {
  const over = got.layers.some((l) => l.found > l.features.length);
  if (over) plan.failure = say("desk.round.foundTooMany", { n: sum(got), most: plan.planning.most });
  return over;
}

/** Adds what is found, or takes it away; tells what it was. @param {Plan} plan @param {Record<string, unknown>} how @param {string[]} [layers] */
export function choose(plan, how, layers) {
  return plan.trying(async () => {
    const got = await ask(plan, how, layers);
    if (tooMany(plan, got)) return;
    const there = spots(got);
    const said = told(plan, got, there);
    const ids = new Set(there.map((s) => s.id));
    const had = [...plan.stops.values()];
    const next = plan.taking ? had.filter((s) => !ids.has(s.id)) : [...had, ...there.filter((s) => !plan.stops.has(s.id))];
    if (next.length === had.length) plan.set({ said });
    else plan.put(next, said);
  });
}

/** What was found, and which tags have no feature or several. @param {Plan} plan @param {import("../../../types/border").Chosen} got @param {Stop[]} there */
function told(plan, got, there) {
  const known = there.filter((s) => plan.stops.has(s.id)).length;
  const n = there.length;
  const out = [plan.taking ? say("desk.round.foundToTake", { n: known }) : say("desk.round.found", { n, known })];
  const names = (all) => ({ n: all.length, tags: all.slice(0, NAMED).join(", ") + (all.length > NAMED ? " …" : "") });
  if (got.missing.length) out.push(say("desk.round.tagsMissing", names(got.missing)));
  if (got.several.length) out.push(say("desk.round.tagsSeveral", names(got.several)));
  if (got.twice.length) out.push(say("desk.round.tagsTwice", names(got.twice)));
  return out.join(" ");
}

/** All others in the place of those that are chosen. @param {Plan} plan */
export function invert(plan) {
  return plan.trying(async () => {
    const got = await ask(plan, {});
    if (!tooMany(plan, got)) plan.put(spots(got).filter((s) => !plan.stops.has(s.id)));
  });
}

/** A click on a feature takes it in or out. @param {Plan} plan @param {string} id @param {string} layer */
export async function turn(plan, id, layer) {
  if (plan.stops.has(id)) return plan.drop(id);
  await plan.trying(async () => {
    const got = await ask(plan, { ids: [id] }, [layer]);
    plan.put([...plan.stops.values(), ...spots(got)]);
    plan.shown = id;
  });
}

/** Finds stops again by id, with their notes; tells how many are gone. @param {Plan} plan @param {{id: string, note: string, pictures?: string[]}[]} stops */
export async function findAgain(plan, stops) {
  if (stops.length === 0 || plan.forms.length === 0) return;
  const got = await ask(plan, { ids: stops.map((s) => s.id) });
  const there = new Map(spots(got).map((s) => [s.id, s]));
  const kept = stops.filter((s) => there.has(s.id));
  plan.stops = new Map(kept.map((s) => [s.id, { .../** @type {Stop} */ (there.get(s.id)), note: s.note, pictures: s.pictures ?? [] }]));
  if (kept.length < stops.length) plan.said = say("desk.round.gone", { n: stops.length - kept.length });
}
