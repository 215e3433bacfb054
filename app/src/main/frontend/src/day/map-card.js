// Below the day book's map: where the way leads, how far and which way, to be visited; what lies under each other, to be chosen from.
import { say } from "../shell/say.js";
import { STOP } from "../shell/states.js";
import { number } from "../shell/styles.js";
import { symbol } from "../shell/symbols.js";
import { html, nothing } from "../shell/view.js";
import { stateSaid } from "../shell/words.js";
import { featureOf, stopState } from "./book.js";
import { farSaid } from "./far.js";
import { noteAt, noteSaid } from "./note.js";
import { newButton } from "./stop/new.js";
import { openStop } from "./stop/open.js";

/** So many are offered at once. */
const MOST = 30;

/** @param {{pack: any, look: any, to: any, far: Map<string, import("./far.js").Far>, fix: any, acts: any}} of */
export function placeCard({ pack, look, to, far, fix, acts }) {
  return html`<div class="q-answer">
      <button type="button" id="follow" aria-pressed=${String(look.follow)} ?disabled=${!fix} @click=${acts.follow}>
        ${say("day.follow")}
      </button>
      <button type="button" id="whats-here" ?disabled=${!fix} @click=${acts.here}>${say("day.whatsHere")}</button>
      ${newButton(pack, "")}
    </div>
    ${look.why ? html`<p class="problem" role="alert">${look.why}</p>` : nothing}
    ${look.among.length ? among(pack, look.among, far, acts) : to ? one(pack, look, to, far, acts) : html`<p>${say("day.tapFeature")}</p>`} `;
}

/** What the way leads to. */
function one(pack, look, to, far, acts) {
  const state = stopState(pack, to.id);
  const at = far.get(to.id);
  const stop = pack.isStop.has(to.id);
  const about = [
    stop || state !== STOP.TO_DO ? stateSaid(state) : to.made ? say("day.madeHere") : say("day.noStop"),
    look.chosen ? "" : say("day.nextStop"),
    at ? say("day.fromNorth", { degrees: number(Math.round(at.bearingDeg)) }) : "",
  ];
  return html`<div class="flex gap-3 items-center my-3" data-target=${to.id}>
      ${symbol(state)}
      <div class="flex-1 min-w-0">
        <strong>${to.caption}</strong>
        <p class="quiet">${about.filter(Boolean).join(" · ")}</p>
        ${noteSaid(pack, noteAt(pack, to.id))}
      </div>
      <span class="far">${farSaid(at)}</span>
    </div>
    <div class="q-answer">
      <button type="button" class="main" id="visit-now" @click=${() => openStop(pack, to)}>${say("day.visitNow")}</button>
      ${look.chosen ? html`<button type="button" class="plain" id="to-next" @click=${() => acts.choose("")}>${say("day.toNext")}</button>` : nothing}
    </div>`;
}

/** Several at one place. */
function among(pack, ids, far, acts) {
  const there = ids.map((id) => featureOf(pack, id)).filter(Boolean);
  return html`<ul class="flex flex-col gap-2" id="among">
      ${
        there.length === 0
          ? html`<li>${say("day.nothingAround")}</li>`
          : there.slice(0, MOST).map(
              (f) =>
                html`<li>
                  <button type="button" class="goto" data-among=${f.id} @click=${() => acts.choose(f.id)}>
                    ${symbol(stopState(pack, f.id))}<span
                      ><strong>${f.caption}</strong
                      ><span class="quiet">${pack.layers.find((l) => l.layer === f.layer)?.name ?? ""}</span></span
                    ><span class="far">${farSaid(far.get(f.id))}</span>
                  </button>
                </li>`,
            )
      }
    </ul>
    <p><button type="button" class="plain" @click=${acts.leave}>${say("day.leaveIt")}</button></p>`;
}
