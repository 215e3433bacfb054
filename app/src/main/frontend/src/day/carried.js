// Carried: what is on the device and not at the office yet, and the log of what is.
import { when } from "../shell/styles.js";
import { Failure } from "../shell/server.js";
import { say } from "../shell/say.js";
import { STOP, VISIT } from "../shell/states.js";
import { symbol } from "../shell/symbols.js";
import { html, live, nothing } from "../shell/view.js";
import { stateSaid } from "../shell/words.js";
import { book, refresh, tell } from "./book.js";
import { waitingForCopy } from "./contact.js";
import { show } from "./frame.js";
import { carried } from "./carry.js";
import { carriedFile, give } from "./carried-file.js";
import { bytes } from "../shell/format.js";
import { handIn, tryAgain } from "./hand-in.js";
import { mayGoOut } from "./link.js";
import { signInNote } from "./notes.js";
import { goOnWith, mayGoOn } from "./stop/open.js";
import * as store from "./store.js";

export async function carriedView() {
  const c = await carried(book.person);
  const given = (await store.get("meta", "given:" + book.person)) ?? [];
  const photos = await store.all("photos");
  const still = await waitingForCopy(book.person);
  const mine = book.visits.filter((v) => v.status !== VISIT.BEGUN).sort((a, b) => (b.endedAt ?? "").localeCompare(a.endedAt ?? ""));
  const nothingHere = c.visits.length + c.photos.length === 0;
  const body = html`${signInNote(show)}
    <p>
      <button type="button" class="main" id="hand-in" .disabled=${live(nothingHere)} @click=${(e) => deliver(e.currentTarget)}>
        ${words(c)}
      </button>
    </p>
    ${
      c.visits.length + c.refused.length + c.waiting.length + c.photos.length
        ? html`<details class="card my-2" id="as-file">
            <summary>${say("day.asFile")}</summary>
            <p class="quiet my-2">${say("day.asFileHow")}</p>
            <button type="button" @click=${(e) => asFile(e.currentTarget)}>${say("day.writeFile")}</button>
            <p role="status" id="file-written"></p>
          </details>`
        : nothing
    }
    <p role="status" id="progress" .textContent=${live("")}></p>
    ${c.waiting.length ? html`<p class="told" id="waiting-form">${say("day.formFile.waiting", { n: c.waiting.length })}</p>` : nothing}
    ${c.begun.length ? begun(c.begun) : nothing} ${given.map(givenCard)}
    <ul class="flex flex-col gap-2">
      ${mine.map((v) =>
        logLine(
          v,
          photos.filter((p) => p.visit === v.id),
        ),
      )}
    </ul>
    <p class="quiet" id="rule">${say("day.rule")} ${still ? say("day.photosWait", { n: still }) : ""}</p>`;
  return { body };
}

/** A text that the office could not read and asks this person to look into. */
function givenCard(g) {
  const about = { from: g.from, at: when(g.at), reason: g.reason };
  return html`<div class="told" data-given=${g.id}>
    <p><strong>${say("day.lookInto")} </strong>${say("day.given", about)}</p>
    ${g.note ? html`<p>${say("day.officeSays", { note: g.note })}</p>` : nothing}
  </div>`;
}

/** What was begun and not saved yet; of rounds that are over, too. */
function begun(all) {
  const line = (v) =>
    html`<li class="card flex gap-3 items-center" data-begun=${v.id}>
      ${symbol(STOP.STARTED)}
      <div class="flex-1 min-w-0">
        <strong>${v.caption}</strong>
        <p class="quiet">${when(v.startedAt)}</p>
      </div>
      ${goOn(v)}
    </li>`;
  return html`<section id="begun">
    <p class="quiet">${say("day.begunKept", { n: all.length })}</p>
    <ul class="flex flex-col gap-2 my-2">
      ${all.map(line)}
    </ul>
  </section>`;
}

const goOn = (v) => (mayGoOn(v) ? html`<button type="button" data-go-on @click=${() => goOnWith(v)}>${say("day.goOn")}</button>` : nothing);

function logLine(v, own) {
  const what = v.status === VISIT.COMPLETE ? "carried" : v.office?.clash ? "clash" : (v.office?.state ?? VISIT.WAITING);
  const took = v.light ? v.took : own.length;
  const there = v.light ? v.took : own.filter((p) => p.sent).length;
  const facts = [stateSaid(what), took ? say("day.photosAt", { there, took }) : "", when(v.endedAt)];
  const again = async () => {
    await tryAgain(v.id);
    await show("carried");
  };
  return html`<li class="card flex gap-3 items-center" data-visit=${v.id}>
    ${symbol(what)}
    <div class="flex-1 min-w-0">
      <strong>${v.caption}</strong>
      <p class="quiet">${facts.filter(Boolean).join(" · ")}</p>
      ${v.office?.reason ? html`<p>${v.office.reason}</p>` : nothing}
      ${
        v.refused
          ? html`<div class="problem">
              <p>${v.refused}</p>
              <button type="button" @click=${again}>${say("day.tryAgain")}</button>
            </div>`
          : nothing
      }
    </div>
    ${v.office?.state === VISIT.SENT_BACK || v.refused ? goOn(v) : nothing}
  </li>`;
}

function words(c) {
  const [visits, photos] = [c.visits.length, c.photos.length];
  if (visits && photos) return say("day.handInBoth", { visits, photos });
  if (visits) return say("day.handInVisits", { visits });
  return photos ? say("day.handInPhotos", { photos }) : say("day.nothingToHandIn");
}

async function send(progress) {
  const before = await carried(book.person);
  await refresh();
  if (book.signedOut) return book.message ?? tell("problem", say("day.signedOut")); // that it was revoked is said already
  if (book.offline) return tell("problem", say("day.noLinkHandIn"));
  if (!book.me) return undefined; // why the office does not answer is said already
  // what turned out to be there already, since it came another way, is handed in as well
  const now = await carried(book.person);
  const there = { visits: before.visits.length - now.visits.length, photos: before.photos.length - now.photos.length };
  const n = await handIn(book.me, (t) => {
    progress.textContent = t;
  });
  const refused = n.refused ? " " + say("day.refusedStay", { n: n.refused }) : "";
  tell(n.refused ? "problem" : "done", say("day.handedIn", { visits: n.visits + there.visits, photos: n.photos + there.photos }) + refused);
}

async function asFile(button) {
  button.disabled = true;
  const told = /** @type {HTMLElement} */ (document.getElementById("file-written"));
  try {
    const { file, visits, photos } = await carriedFile(book.person);
    await give(file);
    told.textContent = say("day.fileWritten", { name: file.name, visits, photos, size: bytes(file.size) });
  } finally {
    button.disabled = false;
  }
}

async function deliver(button) {
  if (!mayGoOut()) return;
  button.disabled = true;
  book.busy = true;
  try {
    await send(document.getElementById("progress"));
  } catch (e) {
    if (e instanceof Failure) {
      book.signedOut = e.status === 401;
      tell("problem", e.message);
    } else if (e instanceof store.StoreFull) tell("problem", say("day.full.answer"));
    else throw e;
  } finally {
    book.busy = false;
  }
  await show("carried");
}
