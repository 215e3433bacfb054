// What stands in the list of stops: of one round or of all that are here, filtered, found and sorted as somebody looks at it.
import { say } from "../shell/say.js";
import { ALLOWS, STOP } from "../shell/states.js";
import { html, nothing } from "../shell/view.js";
import { stateSaid } from "../shell/words.js";
import { book, featureOf, stopState } from "./book.js";
import { currentFix } from "./fix.js";
import { isOthers, LEFT } from "./next.js";
import { noteAt } from "./note.js";
import { isOfType, typesOf } from "./types.js";

/** So many are listed at first, and so many more each time. */
export const LISTED = 40;

/** How the list is looked at; kept while the page lives. */
export const look = { rounds: "one", sort: "near", which: "mine", layer: "", type: "", state: "", wanted: "", listed: LISTED };

/** The packs that are looked at. @returns {any[]} */
export const packsOf = () => (look.rounds === "all" ? book.packs : [book.round]);

const sorted = {
  order: (rows) => rows,
  // rounds without a date come last; within a round it is the order of visit
  due: (rows) => rows.toSorted((a, b) => (a.pack.plan.round.due || "9").localeCompare(b.pack.plan.round.due || "9")),
  name: (rows) => rows.toSorted((a, b) => a.feature.caption.localeCompare(b.feature.caption, undefined, { numeric: true })),
  state: (rows) => rows.toSorted((a, b) => rank(a.state) - rank(b.state)),
};
const rank = (state) => (LEFT.includes(state) ? LEFT.indexOf(state) : LEFT.length);

/** What a feature can be found by: its caption, which has all caption fields, its tag, and what to know there. */
function textOf(pack, feature) {
  const tag = pack.layers.find((l) => l.layer === feature.layer)?.schema.tagField;
  const all = [feature.caption, tag && feature.properties?.[tag], noteAt(pack, feature.id)?.note];
  return all.filter(Boolean).join("\n").toLowerCase();
}

/** Texts by feature; made once, when something is looked for. @type {WeakMap<any, string>} */
const texts = new WeakMap();

/** Whether all words that somebody looks for stand in a feature's text. */
function isFound(pack, feature, words) {
  const text = texts.get(feature) ?? textOf(pack, feature);
  texts.set(feature, text);
  return words.every((w) => text.includes(w));
}

/** The rows of one round. */
function ofRound(pack, far) {
  const given = look.which === "all" ? pack.features.map((f) => f.id) : pack.stops.map((s) => s.feature);
  // what was made here comes first, as what was done last
  const ids = [...[...pack.made.keys()].toReversed(), ...given];
  const words = look.wanted.split(/\s+/).filter(Boolean);
  const order = new Map(pack.stops.map((s, i) => [s.feature, i + 1]));
  return ids
    .map((id) => ({ pack, feature: featureOf(pack, id), far: far.get(id), n: order.get(id), state: stopState(pack, id) }))
    .filter((r) => !look.layer || r.feature.layer === look.layer)
    .filter((r) => !look.state || r.state === look.state)
    .filter((r) => !look.type || isOfType(pack, r.feature, look.type))
    .filter((r) => words.length === 0 || isFound(pack, r.feature, words))
    .filter((r) => look.which !== "left" || (LEFT.includes(r.state) && !isOthers(pack, r.feature.id)))
    .filter((r) => look.which !== "mine" || !isOthers(pack, r.feature.id));
}

/** The rows of the list as it is looked at. @param {Map<any, (fix: any) => Map<string, any>>} farOf by pack */
export function rowsOf(farOf) {
  const fix = currentFix();
  const rows = packsOf().flatMap((p) => ofRound(p, (fix && farOf.get(p)?.(fix)) || new Map()));
  if (look.sort === "near" && fix) return rows.toSorted((a, b) => (a.far?.distanceM ?? Infinity) - (b.far?.distanceM ?? Infinity));
  return (sorted[look.sort] ?? sorted.order)(rows);
}

/** In which order the list stands, in words. */
export function orderSaid() {
  const fix = currentFix();
  if (look.sort !== "near") return "";
  return fix ? say("day.nearestFirst", { accuracy: Math.round(fix.accuracy) }) : say("day.inOrder");
}

/** @param {() => void} draw @param {() => unknown} anew when other rounds are looked at */
export function controls(draw, anew) {
  const packs = packsOf();
  const set = (name) => (e) => {
    Object.assign(look, { [name]: e.target.value, listed: LISTED });
    if (name === "rounds") anew();
    else draw();
  };
  const select = (name, label, all) =>
    html`<select data-look=${name} aria-label=${label} @change=${set(name)}>
      ${all.map(([value, text]) => html`<option value=${value} .selected=${look[name] === value}>${text}</option>`)}
    </select>`;
  const others = packs.some((p) => p.stops.some((s) => isOthers(p, s.feature)));
  const which = [
    ["mine", others ? say("day.myStops") : say("day.allStops")],
    ["left", say("day.leftToDo")],
    ...(others ? [["stops", say("day.othersToo")]] : []),
    ...(packs.some((p) => p.plan.round.allows !== ALLOWS.STOPS) ? [["all", say("day.allAssets")]] : []),
  ];
  if (!which.some(([value]) => value === look.which)) look.which = "mine";
  // a round without stops is of assets
  if (packs.every((p) => p.stops.length === 0) && look.which === "mine") look.which = which.at(-1)?.[0] ?? "mine";
  const layers = [...new Map(packs.flatMap((p) => p.layers.map((l) => [l.layer, l.name])))];
  if (!layers.some(([id]) => id === look.layer)) look.layer = "";
  const types = packs.flatMap((p) => typesOf(p)).filter((t) => !look.layer || t.layer === look.layer);
  const called = (t) => (look.layer || layers.length === 1 ? t.called : `${layers.find(([id]) => id === t.layer)?.[1]}: ${t.called}`);
  const typed = [...new Map(types.map((t) => [t.key, called(t)]))];
  if (!typed.some(([key]) => key === look.type)) look.type = "";
  const states = [["", say("day.anyState")], ...Object.values(STOP).map((s) => [s, stateSaid(s)])];
  return html`<div class="q-answer">
    ${
      book.packs.length > 1
        ? select("rounds", say("day.whichRounds"), [
            ["one", say("day.oneRound")],
            ["all", say("day.allRounds")],
          ])
        : nothing
    }${select("sort", say("day.sortBy"), [
      ["near", say("day.sortNear")],
      ["order", say("day.sortOrder")],
      ["name", say("day.sortName")],
      ["state", say("day.sortState")],
      ...(packs.length > 1 ? [["due", say("day.sortDue")]] : []),
    ])}${select("which", say("day.which"), which)}${
      layers.length > 1 ? select("layer", say("day.onLayer"), [["", say("day.allLayers")], ...layers]) : nothing
    }${typed.length > 1 ? select("type", say("day.ofType"), [["", say("day.allTypes")], ...typed]) : nothing}${select("state", say("day.inState"), states)}
  </div>`;
}
