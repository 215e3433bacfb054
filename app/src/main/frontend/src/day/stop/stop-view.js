// What the page of an open stop shows around the sheet: its head, the trail, open points, the place, the foot.
import { openWords, pointMark, trail } from "../../sheet/points.js";
import { metres } from "../../shell/format.js";
import { fixed } from "../../shell/styles.js";
import { say } from "../../shell/say.js";
import { symbol } from "../../shell/symbols.js";
import { html, nothing } from "../../shell/view.js";
import { currentFix } from "../fix.js";
import { linkSaid } from "../link.js";

/** @type {[string, import("../../shell/say.js").MessageKey][]} */
const GROUPS = [
  ["firm", "sheet.groupMend"],
  ["needed", "sheet.groupFill"],
  ["soft", "sheet.groupLookAt"],
  ["wanted", "sheet.groupWanted"],
];

/** @param {{view: any, state: any, acts: any, sheetBox: HTMLElement, engine: any, visit: any, noted: unknown}} of */
export function stopView({ view, state, acts, sheetBox, engine, visit, noted }) {
  const at = { n: state.page + 1, of: view.pages };
  return html`<header class="day-head">
      <button type="button" aria-label=${say("day.backToStops")} @click=${acts.back}>${symbol("left")}</button>
      <div class="min-w-0 flex-1">
        <h1>${view.caption}</h1>
        <p class="text-sm">${view.title} · ${say("day.pageOf", at)} · ${linkSaid()}</p>
      </div>
    </header>
    <button type="button" class="trail" id="trail" @click=${acts.points}>${trail(view)}<span>${openWords(view.points)}</span></button>
    <div class="day-body">
      <div aria-live="polite">${note(state.note)}</div>
      ${points(view, state, acts)} ${noted} ${guidance(visit)} ${sheetBox} ${placeCard(view, engine, acts, visit)}
      ${turn(view, state, acts)}
    </div>
    ${foot(view, state, acts)}`;
}

function note(n) {
  return n ? html`<div class=${n.kind} role=${n.kind === "problem" ? "alert" : "status"}>${n.text}</div>` : nothing;
}

function points(view, state, acts) {
  const group = ([kind, title]) => {
    const some = view.points.filter((p) => p.kind === kind);
    const one = (p) =>
      html`<li>
        <button type="button" class="plain text-start" @click=${() => acts.jump(p)}>${pointMark(kind)}${say("sheet.pointLine", p)}</button>
      </li>`;
    return some.length
      ? html`<h3>${say(title)}</h3>
          <ul>
            ${some.map(one)}
          </ul>`
      : nothing;
  };
  return html`<div class="card" id="open-points" ?hidden=${!state.pointsOpen}>
    <h2>${say("sheet.openPoints")}</h2>
    ${view.points.length === 0 ? html`<p>${say("sheet.nothingIsOpen")}</p>` : GROUPS.map(group)}
  </div>`;
}

/** Texts and documents that travel with the form. */
function guidance(visit) {
  const all = visit.work.form.guidance ?? [];
  if (all.length === 0) return nothing;
  const file = (g) => {
    const url = visit.files.get(g.file);
    return url
      ? html`<a href=${url} target="_blank" rel="noopener">${g.title}</a>`
      : html`<span>${say("day.guidanceGone", { title: g.title })}</span>`;
  };
  const text = (g) =>
    html`<details>
      <summary>${g.title}</summary>
      <p class="whitespace-pre-wrap">${g.text}</p>
    </details>`;
  return html`<details class="card" id="guidance">
    <summary>${say("day.guidance", { n: all.length })}</summary>
    <ul class="grid gap-2 mt-2">
      ${all.map((g) => html`<li>${g.file ? file(g) : text(g)}</li>`)}
    </ul>
  </details>`;
}

/** How far the person stands from the visit's place. */
function distance(engine, place, fix) {
  const geometry = { type: "Point", coordinates: [place.lon, place.lat] };
  return JSON.parse(engine.shape(JSON.stringify({ op: "distance", geometry, lon: fix.lon, lat: fix.lat }))).distanceM;
}

function placeCard(view, engine, acts, visit) {
  const { kind } = visit.work.schema;
  if (kind === "table") return nothing;
  const fix = currentFix();
  const away = fix && view.place ? say("day.standAway", { far: metres(distance(engine, view.place, fix)) }) : "";
  const at = view.place ? `${fixed(view.place.lat, 5)}°, ${fixed(view.place.lon, 5)}°.` : say("day.noPlace");
  const move = () => acts.moveTo(fix);
  return html`<div class="card" id="place">
    <p><strong>${say("day.place")} </strong>${at} ${away}</p>
    ${
      fix && kind === "point"
        ? html`<button type="button" class="plain" id="move-here" @click=${move}>
            ${say("day.moveHere", { accuracy: Math.round(fix.accuracy) })}
          </button>`
        : nothing
    }
    <button type="button" class="plain" id="place-map" @click=${acts.placeOnMap}>
      ${say(kind === "point" ? "day.placeOnMap" : kind === "line" ? "day.drawLine" : "day.drawArea")}
    </button>
  </div>`;
}

function turn(view, state, acts) {
  const { page } = state;
  return html`<div class="q-answer">
    ${
      page > 0
        ? html`<button type="button" @click=${() => acts.go(page - 1)}>${symbol("left")}${say("day.page", { n: page })}</button>`
        : nothing
    }
    ${
      page < view.pages - 1
        ? html`<button type="button" class="ms-auto" id="next-page" @click=${() => acts.go(page + 1)}>
            ${say("day.page", { n: page + 2 })}${symbol("right")}
          </button>`
        : nothing
    }
  </div>`;
}

function foot(view, state, acts) {
  const open = view.points.filter((p) => p.kind !== "wanted").length;
  return html`<div class="day-foot">
    <span class="quiet self-center" id="kept">${state.kept}</span>
    <button type="button" class="plain ms-auto" id="take-back" ?hidden=${!view.canUndo} @click=${acts.takeBack}>
      ${say("day.takeBack")}
    </button>
    <button type="button" class="main" id="save" @click=${acts.save}>
      ${view.complete ? say("day.save") : say("day.saveOpen", { n: open })}
    </button>
  </div>`;
}
