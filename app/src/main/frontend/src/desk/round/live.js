// A round as it goes: its stops by state on the map and in the list, who did what and where they are; stops are given to others while they are out.
import { bytes } from "../../shell/format.js";
import { packParts } from "../../shell/pack-size.js";
import { say } from "../../shell/say.js";
import { getJson, post } from "../../shell/server.js";
import { STOP } from "../../shell/states.js";
import { day, when } from "../../shell/styles.js";
import { symbol } from "../../shell/symbols.js";
import { drawn, html, live, nothing, repeat } from "../../shell/view.js";
import { stateSaid } from "../../shell/words.js";
import { liveMap } from "./live-map.js";
import { notePictures } from "./note-pictures.js";

/** How often it is asked how the round is, in milliseconds. */
const AGAIN = 30_000;
/** So many stops are listed at once. */
const LISTED = 300;

/** @typedef {import("../../../types/border").RoundNow} RoundNow */

class Live {
  /** @type {RoundNow} */
  now = { stops: [], beside: [], besides: 0, people: [], outdoors: [] };
  /** @type {Set<string>} */
  chosen = new Set();
  to = "";
  said = "";
  failure = "";
  listed = LISTED;
  /** @type {import("../../../types/border").RoundPack | null} */
  pack = null;

  /** @param {string} base @param {boolean} plans whether this person may give stops @param {() => void} changed */
  constructor(base, plans, changed) {
    this.base = base;
    this.plans = plans;
    this.changed = changed;
  }
  async load() {
    try {
      this.now = await getJson(`${this.base}/live`);
      this.failure = "";
    } catch (e) {
      this.failure = e.message;
    }
    this.changed();
  }
  async measure() {
    try {
      this.pack = await getJson(`${this.base}/pack`);
    } catch (e) {
      this.failure = e.message;
    }
    this.changed();
  }
  mayMove(s) {
    return this.plans && s.state === STOP.TO_DO;
  }
  turn(id) {
    if (!this.chosen.delete(id)) this.chosen.add(id);
    this.changed();
  }
  turnAll() {
    const all = this.now.stops.filter((s) => this.mayMove(s));
    this.chosen = new Set(this.chosen.size === all.length ? [] : all.map((s) => s.id));
    this.changed();
  }
  async give() {
    try {
      const { moved } = await post(`${this.base}/move`, { stops: [...this.chosen], person: this.to });
      this.chosen = new Set();
      this.said = say("desk.round.gave", { n: moved });
      await this.load();
    } catch (e) {
      this.failure = e.message;
      this.changed();
    }
  }
}

/** @param {Live} state */
function told(state) {
  return html`${state.failure ? html`<p class="problem" role="alert">${state.failure}</p>` : nothing}
  ${state.said ? html`<p class="done" role="status">${state.said}</p>` : nothing}`;
}

/** @param {Live} state */
function people({ now }) {
  if (now.people.length === 0) return nothing;
  return html`<table id="round-people">
      <thead>
        <tr>
          <th>${say("desk.round.who")}</th>
          <th class="text-end">${say("desk.round.didStops")}</th>
          <th class="text-end">${say("desk.round.givenStops")}</th>
          <th>${say("desk.round.lastContact")}</th>
        </tr>
      </thead>
      <tbody>
        ${now.people.map(
          (p) =>
            html`<tr>
              <td>${p.name}</td>
              <td class="text-end">${p.done}</td>
              <td class="text-end">${p.given}</td>
              <td>${p.contact ? when(p.contact) : say("desk.round.never")}</td>
            </tr>`,
        )}
      </tbody>
    </table>
    ${now.end ? html`<p id="pace">${say("desk.round.pace", { day: day(now.end) })}</p>` : nothing}`;
}

/** What devices take out. @param {Live} state */
function packCard({ pack }) {
  return pack
    ? html`<details class="card" id="round-pack">
        <summary>${say("desk.round.pack", { size: bytes(pack.bytes) })}</summary>
        ${packParts(pack.parts)}
      </details>`
    : nothing;
}

/** @param {Live} state */
function giving(state) {
  if (!state.plans || !state.now.stops.some((s) => state.mayMove(s))) return nothing;
  return html`<div class="card flex gap-2 items-end flex-wrap" id="giving">
    <button type="button" class="plain" id="choose-all" @click=${() => state.turnAll()}>${say("desk.round.chooseAll")}</button>
    <label
      >${say("desk.round.give", { n: state.chosen.size })}
      <select id="give-to" @change=${(e) => (state.to = e.target.value)}>
        <option value="">${say("desk.round.giveNobody")}</option>
        ${state.now.outdoors.map((p) => html`<option value=${p} .selected=${p === state.to}>${p}</option>`)}
      </select></label
    >
    <button type="button" id="give" ?disabled=${state.chosen.size === 0} @click=${() => state.give()}>${say("desk.round.giveIt")}</button>
  </div>`;
}

/** @param {Live} state @param {string} project @param {(id: string) => void} look */
function list(state, project, look) {
  const { stops } = state.now;
  if (stops.length === 0) return nothing;
  const row = (s) => {
    const caption = s.caption || say("desk.round.removed");
    const about = [stateSaid(s.state) + (s.reason ? ": " + s.reason : ""), s.person ? say("desk.round.for", { person: s.person }) : ""];
    return html`<li class="card flex gap-2 items-center" data-stop=${s.id}>
      ${
        state.plans
          ? html`<input
              type="checkbox"
              aria-label=${say("desk.round.chooseStop", { caption })}
              ?disabled=${!state.mayMove(s)}
              .checked=${live(state.chosen.has(s.id))}
              @change=${() => state.turn(s.id)}
            />`
          : nothing
      }
      <button type="button" class="plain p-0" aria-label=${caption} @click=${() => look(s.id)}>${symbol(s.state)}</button>
      <div>
        <span class="ordinal">${s.place}</span> <a href="/p/${project}/layers/${s.layer}#${s.id}">${caption}</a>
        <p class="quiet">
          ${about.filter(Boolean).join(" · ")}${
            s.visit ? html` · <a href="/p/${project}/hand-ins/${s.visit}">${say("desk.round.visit", { person: s.by })}</a>` : nothing
          }
        </p>
        ${s.note ? html`<p>${s.note}</p>` : nothing}${notePictures(project, s.pictures)}
      </div>
    </li>`;
  };
  const on = () => {
    state.listed += LISTED;
    state.changed();
  };
  return html`<ol class="grid gap-2 content-start" id="round-stops">
      ${repeat(stops.slice(0, state.listed), (s) => s.id, row)}
    </ol>
    ${
      stops.length > state.listed
        ? html`<button type="button" id="more-stops" @click=${on}>
            ${say("desk.round.moreStops", { n: stops.length - state.listed })}
          </button>`
        : nothing
    }`;
}

/** Visits to what is no stop. @param {Live} state @param {string} project */
function beside({ now }, project) {
  if (now.besides === 0) return now.stops.length ? nothing : html`<p>${say("desk.round.noVisitYet")}</p>`;
  return html`<section>
    <h2 class="label">${say(now.stops.length ? "desk.round.beside" : "desk.round.visits", { n: now.besides })}</h2>
    <ul class="grid gap-2" id="round-beside">
      ${now.beside.map(
        (v) =>
          html`<li class="card">
            ${symbol(v.state)}
            <a href="/p/${project}/hand-ins/${v.visit}">${v.caption || say(v.makes ? "desk.round.newAsset" : "desk.round.removed")}</a>
            <p class="quiet">${stateSaid(v.state)} · ${v.by} · ${when(v.at)}</p>
          </li>`,
      )}
    </ul>
  </section>`;
}

/** @param {HTMLElement} box */
export async function livePage(box) {
  const { project = "", round, plans } = box.dataset;
  const part = (id) => /** @type {HTMLElement} */ (box.querySelector("#" + id));
  /** @type {() => void} */
  let draw = () => {};
  const state = new Live(`/api/p/${project}/rounds/${round}`, plans === "true", () => draw());
  const map = await liveMap(part("round-map"), project, box.dataset.area);
  const all = [
    drawn(part("round-told"), () => told(state)),
    drawn(
      part("round-side"),
      () => html`${people(state)}${packCard(state)}${giving(state)}${list(state, project, map.look)}${beside(state, project)}`,
    ),
  ];
  let known = state.now;
  draw = () => {
    all.forEach((one) => one());
    if (known !== state.now) map.show(state.now);
    known = state.now;
  };
  await state.load();
  window.setInterval(() => document.visibilityState === "visible" && state.load(), AGAIN);
  part("round-map").dataset.ready = "true";
  box.dataset.ready = "true";
  if (box.dataset.open === "true") await state.measure();
}
