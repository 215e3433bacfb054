// Today: the rounds of this person, taken out or not.
import { bytes } from "../shell/format.js";
import { packParts } from "../shell/pack-size.js";
import { day, when } from "../shell/styles.js";
import { Failure, getJson } from "../shell/server.js";
import { say } from "../shell/say.js";
import { STOP, VISIT } from "../shell/states.js";
import { html, live, nothing, render } from "../shell/view.js";
import { readyAhead } from "./ahead.js";
import { book, stopState, tell } from "./book.js";
import { daysVisits } from "./days-visits.js";
import { drawWithPosition } from "./fix.js";
import { formFileButton } from "./form-file.js";
import { show } from "./frame.js";
import { asksByItself, mayGoOut } from "./link.js";
import { newsCard } from "./news.js";
import { nextStop, OVER } from "./next.js";
import { noteSaid } from "./note.js";
import { signInNote } from "./notes.js";
import { takeOut } from "./pack.js";
import { makeRoom } from "./room.js";
import { shellKept } from "./shell-kept.js";
import * as store from "./store.js";

/** From so many days on a pack may be stale. */
const STALE_DAYS = 7;

export async function todayView() {
  const cards = book.rounds.map((r) =>
    card(
      r,
      book.packs.find((p) => p.round === r.id),
    ),
  );
  const rounds = book.person ? (cards.length ? cards : html`<p>${say("day.noneForYou")}</p>`) : nobody();
  const body = [signInNote(show), await newsCard(show), rounds, daysVisits(), book.person ? formFileButton() : nothing];
  return { body, begin: (root) => watch(root) };
}

/** Keeps the next stop's distance, and tells how large rounds are that are not here yet. */
function watch(root) {
  for (const r of book.rounds) {
    const box = root.querySelector(`[data-size="${r.id}"]`);
    if (box) sizeOf(r).then((size) => render(size, box));
  }
  const packs = book.packs.filter((p) => root.querySelector(`[data-next="${p.round}"]`));
  const draw = async () => {
    for (const p of packs) {
      const box = root.querySelector(`[data-next="${p.round}"]`);
      if (box) render(await nextStop(p), box);
    }
  };
  const ended = drawWithPosition(draw);
  const ahead = readyAhead(book.round);
  return () => {
    ended();
    ahead();
  };
}

/** How large a pack is that was not taken out; nothing without a link. */
async function sizeOf(r) {
  if (!book.me || !asksByItself()) return nothing;
  try {
    /** @type {import("../../types/border").Manifest} */
    const manifest = await getJson(`/api/day/rounds/${r.id}/manifest`, { patient: false });
    return html`<details>
      <summary>${say("day.packSize", { size: bytes(manifest.bytes) })}</summary>
      ${packParts(manifest.told)}
    </details>`;
  } catch (e) {
    if (e instanceof Failure) return nothing; // taking it out tells why
    throw e;
  }
}

const nobody = () => (book.offline ? html`<p>${say("day.nobodyYet")}</p>` : nothing);

function done(r, pack) {
  if (!pack) return r.stops.filter((s) => s.state === STOP.DONE).length;
  return pack.stops.filter((s) => OVER.includes(stopState(pack, s.feature))).length;
}

/** What was done in a round that has no stops, as this device knows. */
function visitsMade(r) {
  const n = book.visits.filter((v) => v.round === r.id && v.status !== VISIT.BEGUN).length;
  return r.expected ? say("day.visitsOf", { n, of: r.expected }) : say("day.visitsMade", { n });
}

const holds = (pack) => ({
  features: pack.features.length,
  visits: Object.values(pack.last).reduce((n, of) => n + Object.keys(of).length, 0),
});

function card(r, pack) {
  const stops = r.stops.length ? say("day.stopsDone", { done: done(r, pack), of: r.stops.length }) : visitsMade(r);
  const go = () => {
    book.round = pack;
    return show("stops");
  };
  const goButton = pack ? html`<button type="button" class="main" @click=${go}>${say("day.goToStops")}</button>` : nothing;
  const take = html`<button
    type="button"
    class=${pack ? "" : "main"}
    .disabled=${live(false)}
    @click=${(e) => takeRound(r, e.currentTarget)}
  >
    ${pack ? say("day.fetchChanged") : say("day.takeOut")}
  </button>`;
  return html`<article class="card" data-round=${r.id}>
    <h2>${r.name}</h2>
    ${pack ? noteSaid(pack, pack.plan.round) : r.note ? html`<p>${r.note}</p>` : nothing}
    <p class="quiet">${stops}${r.due ? " · " + say("day.due", { day: day(r.due) }) : ""}</p>
    ${
      pack
        ? html`<div data-next=${r.id}></div>
            ${onDevice(pack)}`
        : html`<div data-size=${r.id}></div>`
    }
    <p class="q-answer">${goButton}${take}</p>
    <p class="quiet" role="status" .textContent=${live("")}></p>
  </article>`;
}

function onDevice(pack) {
  const forms = pack.plan.forms.map((f) => say("day.formEdition", { title: f.title, edition: String(f.edition) })).join(", ");
  const about = { ...holds(pack), forms, taken: when(pack.takenAt), size: bytes(pack.bytes) };
  const days = Math.floor((Date.now() - Date.parse(pack.takenAt)) / 86_400_000);
  return html`<details class="quiet">
      <summary>${say("day.onDevice", about)}</summary>
      ${pack.told ? packParts(pack.told) : nothing}
    </details>
    ${days >= STALE_DAYS ? html`<p class="told">${say("day.stale", { days })}</p>` : nothing}`;
}

const takeRound = (r, button) => mayGoOut() && fetchRound(r, button);

async function fetchRound(r, button) {
  button.disabled = true;
  book.busy = true;
  const progress = button.closest("article").querySelector("[role=status]");
  try {
    const pack = await takeOut(r.id, book.person, (have, all) => {
      progress.textContent = say("day.bytesOf", { have: bytes(have), all: bytes(all) });
    });
    book.round = pack;
    progress.textContent = say("day.keepingShell");
    if (await shellKept()) tell("done", say("day.taken", { round: r.name, ...holds(pack) }));
    else tell("problem", say("day.takenWithoutShell", { round: r.name }));
  } catch (e) {
    if (e instanceof store.StoreFull && (await makeRoom(r.id))) return fetchRound(r, button);
    if (e instanceof store.StoreFull) tell("problem", say("day.full.takeOut"));
    else if (e instanceof Failure && e.status === 401) book.signedOut = true;
    else tell("problem", e instanceof Failure && e.status === 0 ? say("day.takeOutBroke") : e.message);
  } finally {
    book.busy = false;
  }
  await show("today");
}
