// One question of a sheet: its label, its answer, and what is to be said of it below.
import { say } from "../shell/say.js";
import { html, nothing } from "../shell/view.js";
import { answer, TAPPED } from "./answers.js";
import { keyOf, pointMark } from "./points.js";
import { reference } from "./reference.js";

/** @type {Record<string, import("../shell/say.js").MessageKey>} */
const NEED = { needed: "sheet.needed", wanted: "sheet.wanted" };

/**
 * @param {any} q what the view says of the question
 * @param {any[]} points what is open of it
 * @param {any} act what people can do
 * @param {{key: string, shown: string} | null} taken the answer that was taken away last
 */
export function question(q, points, act, taken) {
  const id = "q-" + (q.row ? q.row + "-" : "") + q.name;
  return html`<div class=${q.half ? "q half" : "q"} data-question=${q.name} data-row=${q.row ?? nothing}>
    <div>
      <div class="q-head">
        <label class="q-label" for=${id} id=${id + "-label"}>${q.label}</label>
        <span class="q-need">${q.need in NEED ? say(NEED[q.need]) : ""}</span>
      </div>
      ${q.hint ? html`<p class="q-hint">${q.hint}</p>` : nothing} ${q.type === "picture" ? nothing : reference(q.picture, q.label, act)}
    </div>
    <div class="q-answer">${answer(q, id, act)}</div>
    <div>
      ${from(q, act)}${takenAway(q, act, taken)}${was(q)}${offer(q, act)}${q.note ? line(q.note) : nothing}${points.map((p) => point(p, act))}
    </div>
  </div>`;
}

const line = (...what) => html`<p class="q-from">${what}</p>`;
const small = (said, name, of, deed) =>
  html`<button
    type="button"
    class="plain"
    data-same=${name === "same" ? of : nothing}
    data-take-away=${name === "away" ? of : nothing}
    data-put-back=${name === "back" ? of : nothing}
    @click=${deed}
  >
    ${said}
  </button>`;

/** Where the answer comes from, with what can be done about it. */
function from(q, act) {
  const told = q.from && q.origin !== "typed";
  const answered = q.value !== null && q.value !== undefined && q.value.length !== 0;
  const away = TAPPED.includes(q.type) && !q.fixed && answered;
  if (!told && !away) return nothing;
  const source = q.confirmed && !q.fixed ? say("sheet.confirmed", { from: q.from }) : q.from;
  return line(
    told ? html`<span>${source}</span>` : nothing,
    told && !q.confirmed && !q.fixed ? small(say("sheet.same"), "same", q.name, () => act.confirm(q.name, q.row)) : nothing,
    away ? small(say("sheet.takeAway"), "away", q.name, () => act.takeAway(q)) : nothing,
  );
}

function takenAway(q, act, taken) {
  if (taken?.key !== keyOf(q)) return nothing;
  return html`<p class="q-from" role="status">
    <span>${say("sheet.wasTakenAway", { answer: taken.shown })}</span>${small(say("sheet.putBack"), "back", q.name, () => act.putBack())}
  </p>`;
}

function was(q) {
  return q.was ? line(say("sheet.was"), " ", html`<span class="q-was">${q.was}</span>`) : nothing;
}

function offer(q, act) {
  if (!q.offer) return nothing;
  return line(
    html`<span>${say("sheet.offer", { from: q.offer.from, value: q.offer.shown })}</span>`,
    act.takeOffer ? small(say("sheet.useNew"), "", "", () => act.takeOffer(q.name, q.row)) : nothing,
  );
}

/** What a check says; what is missing is seen in the trail. */
function point(p, act) {
  if (p.kind === "wanted" || p.kind === "needed") return nothing;
  return html`<p class=${"point " + p.kind} role=${p.kind === "firm" ? "alert" : nothing}>
    ${pointMark(p.kind)}<span>${p.message}</span>
    ${p.kind === "soft" ? html`<button type="button" class="plain" @click=${() => act.confirmSoft(p.key)}>${say("sheet.itIsSo")}</button>` : nothing}
  </p>`;
}
