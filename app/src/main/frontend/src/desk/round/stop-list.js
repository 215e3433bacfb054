// The stops of a round being planned, in their order: found by caption, flipped through, moved, with notes.
import { say } from "../../shell/say.js";
import { symbol } from "../../shell/symbols.js";
import { html, live, nothing, repeat } from "../../shell/view.js";
import { turn } from "./choosing.js";
import { changePictures } from "./note-pictures.js";
import { letter } from "./plan-map.js";

/** So many stops are listed, and so many features that could be added. */
const MOST_LISTED = 300;
const MOST_OFFERED = 30;

/** @typedef {import("./plan.js").Plan} Plan */

/** What stands at the top: how many, of what. @param {Plan} plan */
export function summary(plan) {
  const counted = (f) =>
    f.codes.length
      ? html`<li>
          ${f.label}:
          ${f.codes.map((c) => `${c.label} ${c.n}`).join(", ")}${f.empty ? `, ${say("desk.round.emptyOf", { n: f.empty })}` : ""}
        </li>`
      : nothing;
  return html`<div class="flex items-center gap-2 flex-wrap">
      <strong id="chosen-count" role="status">${say("desk.round.stops", { n: plan.stops.size })}</strong>
      <button type="button" class="plain" id="undo" ?disabled=${!plan.canUndo || plan.busy} @click=${() => plan.undo()}>
        ${say("desk.round.undo")}
      </button>
      <button type="button" class="plain" id="clear" ?disabled=${plan.stops.size === 0} @click=${() => plan.clear()}>
        ${say("desk.round.clear")}
      </button>
    </div>
    ${plan.tooMany ? html`<p class="point firm" id="too-many">${say("desk.round.overTheMost", { most: plan.planning.most })}</p>` : nothing}
    <ul class="quiet text-sm" id="made-of">
      ${plan.made.map(
        (l) =>
          html`<li>
            ${say("desk.round.ofLayer", { n: l.summary.features, layer: l.name })}
            <ul class="ms-3">
              ${l.summary.fields.map(counted)}
            </ul>
          </li>`,
      )}
    </ul>`;
}

/** @param {Plan} plan @param {import("./plan-map.js").PlanMap} map */
export function stopList(plan, map) {
  const wanted = plan.found.trim().toLowerCase();
  const ways = plan.split ? plan.ways.map((w) => w.stops) : [plan.order];
  const rows = ways
    .flatMap((stops, w) => stops.map((id, n) => ({ id, name: (plan.split ? letter(w) : "") + (n + 1), stop: plan.stops.get(id) })))
    .filter((r) => r.stop && (!wanted || r.stop.caption.toLowerCase().includes(wanted)));
  const more = wanted
    ? map.there.filter((f) => !plan.stops.has(f.id) && f.caption.toLowerCase().includes(wanted)).slice(0, MOST_OFFERED)
    : [];
  return html`<div class="flex items-center gap-1 my-2">
      <input
        type="search"
        class="w-full"
        id="found"
        placeholder=${say("desk.round.find")}
        aria-label=${say("desk.round.find")}
        .value=${live(plan.found)}
        @input=${(e) => plan.set({ found: e.target.value })}
      /><button type="button" class="plain" aria-label=${say("desk.round.previous")} @click=${() => plan.flip(-1)}>${symbol("left")}</button
      ><button type="button" class="plain" id="flip" aria-label=${say("desk.round.next")} @click=${() => plan.flip(1)}>
        ${symbol("right")}
      </button>
    </div>
    <ol class="round-stops" id="stop-list" aria-label=${say("desk.round.list")}>
      ${repeat(
        rows.slice(0, MOST_LISTED),
        (r) => r.id,
        (r) => row(plan, r),
      )}
    </ol>
    ${rows.length > MOST_LISTED ? html`<p class="quiet">${say("desk.round.moreStops", { n: rows.length - MOST_LISTED })}</p>` : nothing}
    ${
      more.length
        ? html`<p class="label mt-2">${say("desk.round.offered")}</p>
            <ul id="offered">
              ${more.map(
                (f) =>
                  html`<li>
                    <button type="button" class="plain" data-offer=${f.id} @click=${() => turn(plan, f.id, f.layer)}>
                      + ${f.caption || say("desk.noCaption")}
                    </button>
                  </li>`,
              )}
            </ul>`
        : nothing
    }`;
}

function row(plan, { id, name, stop }) {
  const shown = plan.shown === id;
  const keys = (e) => {
    if (!e.altKey || !["ArrowUp", "ArrowDown"].includes(e.key)) return;
    e.preventDefault();
    step(plan, id, e.key === "ArrowUp" ? -1 : 1);
  };
  const drop = (e) => {
    e.preventDefault();
    const from = e.dataTransfer.getData("text/x-stop");
    if (from) plan.move(from, id);
  };
  return html`<li
    draggable="true"
    data-stop=${id}
    aria-current=${shown ? "true" : nothing}
    @dragstart=${(e) => e.dataTransfer.setData("text/x-stop", id)}
    @dragover=${(e) => e.preventDefault()}
    @drop=${drop}
  >
    <span class="ordinal">${name}</span>
    <button
      type="button"
      class="plain text-start"
      title=${say("desk.round.moveKeys")}
      @click=${() => plan.set({ shown: shown ? "" : id })}
      @keydown=${keys}
    >
      ${stop.caption || say("desk.noCaption")}${stop.at ? "" : html` <span class="quiet">(${say("desk.round.noPlace")})</span>`}${
        plan.layers.length > 1 ? html` <span class="quiet">${plan.layerName(stop.layer)}</span>` : nothing
      }
    </button>
    <button type="button" class="plain" aria-label=${say("desk.round.dropStop", { caption: stop.caption })} @click=${() => plan.drop(id)}>
      ×
    </button>
    ${
      shown || stop.note
        ? html`<input
            type="text"
            class="note"
            maxlength="1000"
            data-note=${id}
            placeholder=${say("desk.round.stopNote")}
            aria-label=${say("desk.round.stopNoteAt", { caption: stop.caption })}
            .value=${live(stop.note)}
            @input=${(e) => plan.write(id, { note: e.target.value }, false)}
            @change=${() => plan.changed()}
          />`
        : nothing
    }${
      shown || stop.pictures.length
        ? changePictures(plan, stop.pictures, (pictures) => plan.write(id, { pictures }), {
            id: "pictures-" + id,
            label: say("desk.round.addPictureAt", { caption: stop.caption }),
          })
        : nothing
    }
  </li>`;
}

/** Moves a stop up or down by one. @param {Plan} plan @param {string} id @param {number} by */
function step(plan, id, by) {
  const { order } = plan;
  const at = order.indexOf(id);
  if (by < 0 ? at > 0 : at < order.length - 1) plan.move(id, by < 0 ? (order[at - 1] ?? "") : (order[at + 2] ?? ""));
  requestAnimationFrame(() => /** @type {any} */ (document.querySelector(`[data-stop="${id}"] button`))?.focus());
}
