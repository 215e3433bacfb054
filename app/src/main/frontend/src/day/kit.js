// Kit: what this device has to work with, each with a test of its own; what is kept here by round; the last contacts.
import { bytes } from "../shell/format.js";
import { say } from "../shell/say.js";
import { fixed, when } from "../shell/styles.js";
import { html, live, nothing, render } from "../shell/view.js";
import { book, refresh, tell } from "./book.js";
import { lastContacts, version } from "./contact-log.js";
import { currentFix, watchPosition } from "./fix.js";
import { peopleCards } from "./kit-people.js";
import { testCamera, testLink, testReceiver, testStore } from "./kit-tests.js";
import { show } from "./frame.js";
import { isSwitchedOff, switchOff } from "./link.js";
import { couldLeave, leave, makeRoom, mayLeave, sizeOf } from "./room.js";
import { isDurable, room } from "./store.js";

/** @param {string} name @param {unknown} said @param {unknown} [test] */
const line = (name, said, test = nothing) =>
  html`<div class="kit-line">
    <dt>${name}</dt>
    <dd class="quiet">${said}</dd>
    ${test}
  </div>`;

/** A button that tries something and says what came of it. @param {string} id @param {() => Promise<string>} deed */
function tried(id, deed) {
  const run = async (e) => {
    const button = e.currentTarget;
    const told = button.parentElement.querySelector("[role=status]");
    button.disabled = true;
    told.textContent = say("day.kit.trying");
    try {
      told.textContent = await deed();
    } finally {
      button.disabled = false;
    }
  };
  return html`<dd><button type="button" data-test=${id} @click=${run}>${say("day.kit.test")}</button> <span role="status"></span></dd>`;
}

function link() {
  if (isSwitchedOff()) return say("day.link.offHow");
  if (!navigator.onLine) return say("day.kit.none");
  return book.offline ? say("day.kit.noOffice") : say("day.kit.network");
}

/** Where the device is, as exact as it knows. */
function receiver() {
  const fix = currentFix();
  if (!fix) return say("day.kit.noPosition");
  const own = say("day.kit.own", { accuracy: Math.round(fix.accuracy) });
  return `${fixed(fix.lat, 5)}°, ${fixed(fix.lon, 5)}°: ${own}`;
}

const camera = () => {
  const picked = async (e) => {
    const [file] = e.target.files;
    const told = e.target.closest("dd").querySelector("[role=status]");
    e.target.value = "";
    if (file) told.textContent = await testCamera(file);
  };
  return html`<dd>
    <label class="button"
      >${say("day.kit.test")}<input type="file" class="sr-only" accept="image/*" capture="environment" data-test="camera" @change=${picked}
    /></label>
    <span role="status"></span>
  </dd>`;
};

/** What is kept here of each round, and the way to make room. */
function rounds() {
  const one = (pack) => {
    const name = pack.plan.round.name;
    const go = async () => {
      if (!window.confirm(say("day.kit.askLeave", { name, size: bytes(pack.bytes) }))) return;
      await leave(pack);
      tell("done", say("day.kit.left", { name }));
      await show("kit");
    };
    return html`<li class="kit-line" data-kept=${pack.round}>
      <strong>${name}</strong> <span class="quiet">${bytes(pack.bytes)}</span>
      ${
        mayLeave(pack)
          ? html`<button type="button" class="plain" @click=${go}>${say("day.kit.leave")}</button>`
          : html`<span class="quiet">${say("day.kit.stays")}</span>`
      }
    </li>`;
  };
  if (book.packs.length === 0) return nothing;
  const over = couldLeave();
  return html`<section class="card" id="kept-rounds">
    <h2>${say("day.kit.rounds")}</h2>
    <ul>
      ${book.packs.map(one)}
    </ul>
    ${
      over.length
        ? html`<p>
            <button type="button" id="make-room" @click=${() => makeRoom().then(() => show("kit"))}>
              ${say("day.room.make", { n: over.length, size: bytes(sizeOf(over)) })}
            </button>
          </p>`
        : nothing
    }
  </section>`;
}

async function contactLog() {
  const all = await lastContacts();
  return all.length
    ? html`<details class="card" id="contacts">
        <summary>${say("day.kit.contacts")}</summary>
        <ul>
          ${all.map((c) => html`<li>${when(c.at)} <span class="quiet">${c.said}</span></li>`)}
        </ul>
      </details>`
    : nothing;
}

export async function kitView() {
  const r = await room();
  const durable = await isDurable();
  const sun = document.documentElement.classList.contains("sun");
  const turn = () => {
    document.documentElement.classList.toggle("sun");
    localStorage.setItem("whinridge-sun", String(!sun));
    return show("kit");
  };
  const turnLink = async (e) => {
    switchOff(e.target.checked);
    if (!e.target.checked) await refresh();
    await show("kit");
  };
  const linkSwitch = html`<dd>
    <label class="flex items-center gap-2"
      ><input type="checkbox" id="link-off" .checked=${live(isSwitchedOff())} @change=${turnLink} />${say("day.link.switch")}</label
    >
  </dd>`;
  const left = r ? say("day.kit.room", { used: bytes(r.used ?? 0), left: bytes(r.left) }) : say("day.kit.noRoomTold");
  const kept = durable ? say("day.kit.durable") : say("day.kit.notDurable");
  const body = html`<dl class="card flex flex-col gap-3">
      ${line(say("day.kit.receiver"), html`<span id="receiver"></span>`, tried("receiver", testReceiver))}
      ${line(say("day.kit.camera"), say("day.kit.cameraHow"), camera())}
      ${line(say("day.kit.store"), `${left}. ${kept}`, tried("store", testStore))}
      ${line(say("day.kit.link"), link(), [tried("link", testLink), linkSwitch])}
      ${line(say("day.kit.version"), (await version()) || say("day.kit.noVersion"))}
    </dl>
    ${rounds()} ${await contactLog()}
    <p><button type="button" aria-pressed=${String(sun)} @click=${turn}>${sun ? say("day.kit.leaveSun") : say("day.kit.sun")}</button></p>
    ${await peopleCards()}`;
  const begin = (root) => {
    const draw = () => {
      const box = root.querySelector("#receiver");
      if (box) render(receiver(), box);
    };
    draw();
    return watchPosition(draw);
  };
  return { body, begin };
}
