// Kit: what this device has to work with.
import { bytes } from "../shell/format.js";
import { say } from "../shell/say.js";
import { html } from "../shell/view.js";
import { book } from "./book.js";
import { currentFix } from "./fix.js";
import { peopleCards } from "./kit-people.js";
import { show } from "./frame.js";
import { room } from "./store.js";

const line = (name, said) =>
  html`<div>
    <dt>${name}</dt>
    <dd class="quiet">${said}</dd>
  </div>`;

function link() {
  if (!navigator.onLine) return say("day.kit.none");
  return book.offline ? say("day.kit.noOffice") : say("day.kit.network");
}

export async function kitView() {
  const r = await room();
  const fix = currentFix();
  const sun = document.documentElement.classList.contains("sun");
  const turn = () => {
    document.documentElement.classList.toggle("sun");
    localStorage.setItem("whinridge-sun", String(!sun));
    return show("kit");
  };
  const receiver = fix ? say("day.kit.own", { accuracy: Math.round(fix.accuracy) }) : say("day.kit.noPosition");
  const left = r ? say("day.kit.room", { used: bytes(r.used ?? 0), left: bytes(r.left) }) : say("day.kit.noRoomTold");
  const body = html`<dl class="card flex flex-col gap-3">
      ${line(say("day.kit.receiver"), receiver)}${line(say("day.kit.store"), left)}${line(say("day.kit.link"), link())}
    </dl>
    <p><button type="button" aria-pressed=${String(sun)} @click=${turn}>${sun ? say("day.kit.leaveSun") : say("day.kit.sun")}</button></p>
    ${await peopleCards()}`;
  return { body };
}
