// Opening a stop: one window at a time, with the visit that is here already or a new one.
import { say } from "../../shell/say.js";
import { STOP, VISIT } from "../../shell/states.js";
import { symbol } from "../../shell/symbols.js";
import { html } from "../../shell/view.js";
import { stateSaid } from "../../shell/words.js";
import { book, featureOf, formOf, tell, visitsTo } from "../book.js";
import { page, show, showView, turnTo } from "../frame.js";
import { noteAt, noteSaid } from "../note.js";
import { formsFor } from "../pack.js";
import * as store from "../store.js";
import { openVisit } from "../visits.js";
import { stopPage } from "./stop-page.js";

/** One window at a time may fill a stop. Gives the function that lets it go, or null when another window has it. @returns {Promise<(() => void) | null>} */
function holdStop(name) {
  if (!navigator.locks) return Promise.resolve(() => {});
  return new Promise((resolve) => {
    navigator.locks.request("stop-" + name, { ifAvailable: true }, (lock) => {
      if (!lock) return resolve(null);
      return new Promise((release) => resolve(() => release(undefined)));
    });
  });
}

/** A visit that is not over: not handed in, or sent back. */
const goesOn = (v) => !v.light && (v.status !== VISIT.HANDED_IN || v.office?.state === VISIT.SENT_BACK);

/** The visit that goes on here: begun, complete and not handed in, or sent back. */
async function existingVisit(pack, feature, form) {
  const here = (v) => v.person === book.person && v.round === pack.round && v.feature === feature.id && formOf(v, form) === form;
  return (await store.all("visits")).filter((v) => here(v) && goesOn(v)).at(-1);
}

/** Begins what nobody knew, with a form. @param {any} pack @param {{form: string, layer: string, preset: any, called: string}} what */
export function openNew(pack, { form, layer, preset, called }) {
  const feature = {
    type: "Feature",
    id: crypto.randomUUID(),
    layer,
    geometry: null,
    properties: {},
    version: 0,
    made: preset,
    caption: called,
    ofForm: form,
  };
  return openWith(pack, feature, form);
}

/** What a visit is to, where its pack is here. @param {any} v */
function whereOf(v) {
  const pack = book.packs.find((p) => p.round === v.round);
  const feature = pack && featureOf(pack, v.feature);
  return feature ? { pack, feature } : undefined;
}

/** Whether somebody can go on with a visit: it is not at the office, or came back from there. @param {any} v */
export const mayGoOn = (v) => goesOn(v) && Boolean(whereOf(v));

/** Opens the stop of a visit, whether its round is still this person's or not. @param {any} v */
export function goOnWith(v) {
  const at = whereOf(v);
  if (!at) return show("carried");
  book.round = at.pack;
  return openStop(at.pack, at.feature);
}

/** Opens a stop; where it has several forms, one of them is chosen first. */
export async function openStop(pack, feature) {
  const forms = formsFor(pack, feature);
  if (forms.length === 1) return openWith(pack, feature, forms[0].id);
  book.message = null;
  return showView(chooseForm(pack, feature, forms));
}

/** The forms of a stop, each with how far it is. */
function chooseForm(pack, feature, forms) {
  const row = (f) => {
    const last = visitsTo(pack, feature.id, f.id).at(-1);
    const state = last ? (last.status === VISIT.BEGUN ? STOP.STARTED : STOP.DONE) : STOP.TO_DO;
    return html`<li>
      <button type="button" class="stop" data-form=${f.id} @click=${() => openWith(pack, feature, f.id)}>
        ${symbol(state)}<span><strong>${f.title}</strong><span class="quiet">${stateSaid(state)}</span></span>
      </button>
    </li>`;
  };
  return html`<h2>${feature.caption}</h2>
    ${noteSaid(pack, noteAt(pack, feature.id), "told")}
    <p class="quiet">${say("day.whichForm")}</p>
    <ul class="flex flex-col gap-2" id="stop-forms">
      ${forms.map(row)}
    </ul>
    <p><button type="button" class="plain" @click=${() => show("stops")}>${say("day.backToStops")}</button></p>`;
}

async function openWith(pack, feature, form) {
  turnTo();
  const release = await holdStop(pack.round + feature.id + form);
  const { caption } = feature;
  if (!release) {
    tell("told", say("day.openElsewhere", { caption }));
    return show("stops");
  }
  const existing = await existingVisit(pack, feature, form);
  const handed = visitsTo(pack, feature.id, form).find((v) => v.status === VISIT.HANDED_IN && v.office?.state !== VISIT.SENT_BACK);
  if (!existing && handed) {
    release();
    tell("told", say("day.handedInAlready", { caption, state: stateSaid(handed.office?.state ?? VISIT.WAITING) }));
    return show("stops");
  }
  book.stopOpen = true;
  const visit = await openVisit(pack, feature, form, existing);
  const leave = (message) => {
    book.message = message ?? null;
    return show("stops");
  };
  const noted = noteSaid(pack, noteAt(pack, feature.id), "told");
  turnTo(await stopPage({ root: page(), visit, noted, release, leave }));
}
