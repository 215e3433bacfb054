// Stops: the round's features by distance, found by tag or name.
import { loadEngine } from "../shell/engine.js";
import { metres } from "../shell/format.js";
import { number } from "../shell/styles.js";
import { say } from "../shell/say.js";
import { symbol } from "../shell/symbols.js";
import { html, nothing, render, repeat } from "../shell/view.js";
import { stateSaid } from "../shell/words.js";
import { book, stopState } from "./book.js";
import { currentFix, watchPosition } from "./fix.js";
import { noRound } from "./notes.js";
import { openStop } from "./stop/open.js";

export async function stopsView() {
  if (!book.round) return noRound();
  const pack = book.round;
  const engine = await loadEngine();
  const nearest = engine.stops(JSON.stringify(pack.features));
  const byId = new Map(pack.features.features.map((f) => [f.id, f]));
  let wanted = "";
  let draw = () => {};
  const find = (e) => {
    wanted = e.target.value.trim().toLowerCase();
    draw();
  };
  const { name, note } = pack.work.round;
  const body = html`<h2>${name}</h2>
    ${note ? html`<p class="told">${note}</p>` : nothing}
    <div class="q-answer">
      <input type="search" class="w-full" placeholder=${say("day.tagOrName")} aria-label=${say("day.findStop")} @input=${find} />
    </div>
    <p class="quiet" id="stop-order"></p>
    <ol class="flex flex-col gap-2" id="stop-list"></ol>`;
  const begin = (root) => {
    draw = () => {
      const fix = currentFix();
      const seen = fix ? JSON.parse(nearest.from(fix.lon, fix.lat)) : pack.features.features.map((f) => ({ id: f.id }));
      const order = fix ? say("day.nearestFirst", { accuracy: Math.round(fix.accuracy) }) : say("day.inOrder");
      root.querySelector("#stop-order").textContent = order;
      const found = seen.filter((s) => byId.get(s.id).caption.toLowerCase().includes(wanted));
      render(
        repeat(
          found,
          (s) => s.id,
          (s) => row(pack, byId.get(s.id), s),
        ),
        root.querySelector("#stop-list"),
      );
    };
    draw();
    return watchPosition(draw);
  };
  return { body, begin };
}

function row(pack, feature, seen) {
  const state = stopState(pack, feature.id);
  const far = seen.distanceM === undefined ? nothing : metres(seen.distanceM);
  return html`<li>
    <button type="button" class="stop" data-stop=${feature.id} @click=${() => openStop(pack, feature)}>
      ${symbol(state)}<span><strong>${feature.caption}</strong><span class="quiet">${stateSaid(state)}</span></span>
      <span class="far">${far}${seen.bearingDeg === undefined ? nothing : arrow(seen.bearingDeg)}</span>
    </button>
  </li>`;
}

function arrow(degrees) {
  const turn = Math.round(degrees);
  return html`<span title=${say("day.fromNorth", { degrees: number(turn) })}>${symbol("here", turn)}</span>`;
}
