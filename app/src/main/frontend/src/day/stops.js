// Stops: where to go, of one round or of all that are here; found by tag or name. Assets that are no stops are there where the round allows them.
import { say } from "../shell/say.js";
import { STOP } from "../shell/states.js";
import { day } from "../shell/styles.js";
import { symbol } from "../shell/symbols.js";
import { html, live, nothing, render, repeat, whenIdle } from "../shell/view.js";
import { stateSaid } from "../shell/words.js";
import { readyAhead } from "./ahead.js";
import { book, stopOf } from "./book.js";
import { ask, mayAsk } from "./elsewhere.js";
import { farFrom, farSaid } from "./far.js";
import { drawWithPosition } from "./fix.js";
import { show } from "./frame.js";
import { isOthers } from "./next.js";
import { noteAt, noteSaid } from "./note.js";
import { noRound } from "./notes.js";
import { lookAt } from "./places.js";
import { newButton } from "./stop/new.js";
import { openStop } from "./stop/open.js";
import { readTypes } from "./types.js";
import { controls, LISTED, look, orderSaid, packsOf, rowsOf } from "./stop-rows.js";

/** So many rows are drawn at once; the others that are listed come when nobody waits, since a list is seen sooner so. */
const AT_ONCE = 15;
/** From so many characters on the office is asked for a name. */
const LEAST_TEXT = 2;

export async function stopsView() {
  if (!book.round) return noRound();
  if (book.packs.length === 1) look.rounds = "one";
  const pack = book.round;
  const several = look.rounds === "all";
  const farOf = new Map();
  for (const p of packsOf()) {
    farOf.set(p, await farFrom(p));
    await readTypes(p);
  }
  let draw = () => {};
  const find = (e) => {
    Object.assign(look, { wanted: e.target.value.trim().toLowerCase(), listed: LISTED });
    draw();
  };
  const { name } = pack.plan.round;
  const head = html`<h2>${name}</h2>
    ${noteSaid(pack, pack.plan.round, "told")}`;
  const body = html`${several ? html`<h2>${say("day.allRounds")}</h2>` : head}
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
    ${several ? nothing : newButton(pack)}
    <div id="stop-controls"></div>
    <p class="quiet" id="stop-order"></p>
    <ol class="flex flex-col gap-2" id="stop-list"></ol>
    <div id="stop-more"></div>`;
  const begin = (root) => {
    const list = (rows, n) =>
      render(
        repeat(
          rows.slice(0, n),
          (r) => r.pack.round + r.feature.id,
          (r) => row(r, several),
        ),
        root.querySelector("#stop-list"),
      );
    let shown = 0;
    let rest = () => {};
    /** Shows the rows that are listed, some more at a time. */
    const grow = (rows, n) => {
      shown = Math.min(n, look.listed);
      list(rows, shown);
      if (shown < Math.min(look.listed, rows.length)) rest = whenIdle(() => grow(rows, shown + AT_ONCE));
    };
    draw = () => {
      render(
        controls(draw, () => show("stops")),
        root.querySelector("#stop-controls"),
      );
      const rows = rowsOf(farOf);
      root.querySelector("#stop-order").textContent = orderSaid();
      rest();
      grow(rows, Math.max(shown, AT_ONCE));
      render(html`${more(rows.length, draw)}${elsewhere(pack, draw, farOf)}`, root.querySelector("#stop-more"));
    };
    const ended = drawWithPosition(draw);
    const ahead = readyAhead(pack);
    return () => {
      rest();
      ahead();
      ended();
    };
  };
  return { body, begin };
}

/** The way to assets that are not on this device. */
function elsewhere(pack, draw, farOf) {
  if (!mayAsk(pack) || look.wanted.length < LEAST_TEXT) return nothing;
  const go = async (e) => {
    const told = e.currentTarget.parentElement.querySelector("[role=status]");
    const { found, why } = await ask(pack, { text: look.wanted });
    // what came lies somewhere, too
    farOf.set(pack, await farFrom(pack));
    if (found.length) look.which = "all";
    draw();
    told.textContent = why || say("day.foundThere", { n: found.length });
  };
  return html`<p>
    <button type="button" id="ask-office" @click=${go}>${say("day.askOffice", { text: look.wanted })}</button>
    <span role="status" .textContent=${live("")}></span>
  </p>`;
}

function more(n, draw) {
  if (n === 0) return html`<p>${say(look.wanted || look.layer || look.state || look.type ? "day.noStopFound" : "day.nothingHere")}</p>`;
  if (n <= look.listed) return nothing;
  const on = () => {
    look.listed += LISTED;
    draw();
  };
  return html`<button type="button" id="more-stops" @click=${on}>${say("day.moreStops", { n: n - look.listed })}</button>`;
}

/** A stop to be opened, and the way to it on the map. */
function row({ pack, feature, far, n, state }, several) {
  const whose = isOthers(pack, feature.id) ? say("day.stopOf", { person: stopOf(pack, feature.id)?.person ?? "" }) : "";
  const what = n !== undefined || state !== STOP.TO_DO ? stateSaid(state) : feature.made ? say("day.madeHere") : say("day.noStop");
  const { name, due } = pack.plan.round;
  const whichRound = several ? name + (due ? ", " + say("day.due", { day: day(due) }) : "") : "";
  const about = [what, whose, whichRound].filter(Boolean).join(" · ");
  const noted = noteAt(pack, feature.id);
  const pictures = noted?.pictures?.length ? say("day.withPictures", { n: noted.pictures.length }) : "";
  const note = [noted?.note, pictures].filter(Boolean).join(" · ");
  const onMap = () => {
    book.round = pack;
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
