// Stops: where to go, by distance, in the order of visit, by name or state; found by tag or name. Assets that are no stops are there where the round allows them.
import { say } from "../shell/say.js";
import { ALLOWS, STOP } from "../shell/states.js";
import { symbol } from "../shell/symbols.js";
import { html, nothing, render, repeat } from "../shell/view.js";
import { stateSaid } from "../shell/words.js";
import { book, featureOf, stopOf, stopState } from "./book.js";
import { farFrom, farSaid } from "./far.js";
import { currentFix, watchPosition } from "./fix.js";
import { noRound } from "./notes.js";
import { lookAt } from "./places.js";
import { show } from "./frame.js";
import { isOthers, LEFT } from "./next.js";
import { newButton } from "./stop/new.js";
import { openStop } from "./stop/open.js";

/** So many are listed at first, and so many more each time. */
const LISTED = 40;
/** How the list is looked at; kept while the page lives. */
const look = { sort: "near", which: "mine", layer: "", wanted: "", listed: LISTED };

const sorted = {
  order: (rows) => rows,
  name: (rows) => rows.toSorted((a, b) => a.feature.caption.localeCompare(b.feature.caption, undefined, { numeric: true })),
  state: (rows) => rows.toSorted((a, b) => rank(a.state) - rank(b.state)),
};
const rank = (state) => (LEFT.includes(state) ? LEFT.indexOf(state) : LEFT.length);

/** The rows of the list as it is looked at. */
function rowsOf(pack, farOf) {
  const fix = currentFix();
  const far = fix ? farOf(fix) : new Map();
  const given = look.which === "all" ? pack.features.map((f) => f.id) : pack.stops.map((s) => s.feature);
  // what was made here comes first, as what was done last
  const ids = [...[...pack.made.keys()].toReversed(), ...given];
  const order = new Map(pack.stops.map((s, i) => [s.feature, i + 1]));
  const rows = ids
    .map((id) => ({ feature: featureOf(pack, id), far: far.get(id), n: order.get(id), state: stopState(pack, id) }))
    .filter((r) => !look.layer || r.feature.layer === look.layer)
    .filter((r) => !look.wanted || r.feature.caption.toLowerCase().includes(look.wanted))
    .filter((r) => look.which !== "left" || (LEFT.includes(r.state) && !isOthers(pack, r.feature.id)))
    .filter((r) => look.which !== "mine" || !isOthers(pack, r.feature.id));
  if (look.sort === "near" && fix) return rows.toSorted((a, b) => (a.far?.distanceM ?? Infinity) - (b.far?.distanceM ?? Infinity));
  return (sorted[look.sort] ?? sorted.order)(rows);
}

/** @param {any} pack @param {() => void} draw */
function controls(pack, draw) {
  const set = (name) => (e) => {
    Object.assign(look, { [name]: e.target.value, listed: LISTED });
    draw();
  };
  const select = (name, label, all) =>
    html`<select data-look=${name} aria-label=${label} @change=${set(name)}>
      ${all.map(([value, text]) => html`<option value=${value} .selected=${look[name] === value}>${text}</option>`)}
    </select>`;
  const others = pack.stops.some((s) => isOthers(pack, s.feature));
  const which = [
    ["mine", others ? say("day.myStops") : say("day.allStops")],
    ["left", say("day.leftToDo")],
    ...(others ? [["stops", say("day.othersToo")]] : []),
    ...(pack.plan.round.allows !== ALLOWS.STOPS ? [["all", say("day.allAssets")]] : []),
  ];
  if (!which.some(([value]) => value === look.which)) look.which = "mine";
  // a round without stops is of assets
  if (pack.stops.length === 0 && look.which === "mine") look.which = which.at(-1)?.[0] ?? "mine";
  const layers = pack.layers.map((l) => [l.layer, l.name]);
  if (!layers.some(([id]) => id === look.layer)) look.layer = "";
  return html`<div class="q-answer">
    ${select("sort", say("day.sortBy"), [
      ["near", say("day.sortNear")],
      ["order", say("day.sortOrder")],
      ["name", say("day.sortName")],
      ["state", say("day.sortState")],
    ])}${select("which", say("day.which"), which)}${
      layers.length > 1 ? select("layer", say("day.onLayer"), [["", say("day.allLayers")], ...layers]) : nothing
    }
  </div>`;
}

/** In which order the list stands, in words. */
function orderSaid() {
  const fix = currentFix();
  if (look.sort !== "near") return "";
  return fix ? say("day.nearestFirst", { accuracy: Math.round(fix.accuracy) }) : say("day.inOrder");
}

export async function stopsView() {
  if (!book.round) return noRound();
  const pack = book.round;
  const farOf = await farFrom(pack);
  const notes = new Map(pack.stops.map((s) => [s.feature, s.note]));
  let draw = () => {};
  const find = (e) => {
    Object.assign(look, { wanted: e.target.value.trim().toLowerCase(), listed: LISTED });
    draw();
  };
  const { name, note } = pack.plan.round;
  const body = html`<h2>${name}</h2>
    ${note ? html`<p class="told">${note}</p>` : nothing}
    <div class="q-answer">
      <input
        type="search"
        class="w-full"
        placeholder=${say("day.tagOrName")}
        aria-label=${say("day.findStop")}
        .value=${look.wanted}
        @input=${find}
      />
    </div>
    ${newButton(pack)}
    <div id="stop-controls"></div>
    <p class="quiet" id="stop-order"></p>
    <ol class="flex flex-col gap-2" id="stop-list"></ol>
    <div id="stop-more"></div>`;
  const begin = (root) => {
    draw = () => {
      render(controls(pack, draw), root.querySelector("#stop-controls"));
      const rows = rowsOf(pack, farOf);
      root.querySelector("#stop-order").textContent = orderSaid();
      render(
        repeat(
          rows.slice(0, look.listed),
          (r) => r.feature.id,
          (r) => row(pack, r, notes.get(r.feature.id)),
        ),
        root.querySelector("#stop-list"),
      );
      render(more(rows.length, draw), root.querySelector("#stop-more"));
    };
    draw();
    return watchPosition(draw);
  };
  return { body, begin };
}

function more(n, draw) {
  if (n === 0) return html`<p>${say(look.wanted || look.layer ? "day.noStopFound" : "day.nothingHere")}</p>`;
  if (n <= look.listed) return nothing;
  const on = () => {
    look.listed += LISTED;
    draw();
  };
  return html`<button type="button" id="more-stops" @click=${on}>${say("day.moreStops", { n: n - look.listed })}</button>`;
}

/** A stop to be opened, and the way to it on the map. */
function row(pack, { feature, far, n, state }, note) {
  const whose = isOthers(pack, feature.id) ? say("day.stopOf", { person: stopOf(pack, feature.id)?.person ?? "" }) : "";
  const what = n !== undefined || state !== STOP.TO_DO ? stateSaid(state) : feature.made ? say("day.madeHere") : say("day.noStop");
  const about = [what, whose].filter(Boolean).join(" · ");
  const onMap = () => {
    lookAt(feature.id);
    return show("map");
  };
  return html`<li class="flex">
    <button type="button" class="stop flex-1 min-w-0" data-stop=${feature.id} @click=${() => openStop(pack, feature)}>
      ${symbol(state)}${n === undefined ? nothing : html`<span class="ordinal">${n}</span>`}<span
        ><strong>${feature.caption}</strong><span class="quiet">${about}</span>${note ? html`<span>${note}</span>` : nothing}</span
      >
      <span class="far">${farSaid(far)}</span>
    </button>
    ${
      feature.geometry
        ? html`<button
            type="button"
            class="plain on-map"
            data-on-map=${feature.id}
            aria-label=${say("day.showOnMap", { caption: feature.caption })}
            @click=${onMap}
          >
            ${say("day.tab.map")}
          </button>`
        : nothing
    }
  </li>`;
}
