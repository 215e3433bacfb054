// Kit: whose device this is. Several people keep what is theirs apart; a PIN keeps one from another's.
import { say } from "../shell/say.js";
import { html, live, nothing } from "../shell/view.js";
import { book, refresh, tell } from "./book.js";
import { deviceName, setDeviceName } from "./device.js";
import { show } from "./frame.js";
import { codeForm } from "./pairing.js";
import { people, setPin, switchTo } from "./people.js";
import { isPin, LEAST, MOST } from "./pin.js";

const again = async () => {
  await refresh();
  await show("kit");
};

/** Takes over for whoever is here. @param {string} name @param {string} pin */
async function turnTo(name, pin) {
  const why = await switchTo(name, pin);
  if (why) {
    tell("problem", why);
    return show("kit");
  }
  book.me = null;
  book.round = null;
  book.person = name;
  tell("done", say("day.people.here", { name }));
  await refresh();
  return show("today");
}

const pinBox = (label) =>
  html`<label class="flex-1"
    ><span class="label">${label}</span
    ><input
      class="w-full"
      name="pin"
      type="password"
      inputmode="numeric"
      autocomplete="off"
      minlength=${LEAST}
      maxlength=${MOST}
      .value=${live("")}
      required
  /></label>`;

/** @param {import("./people.js").Person} p */
function other(p) {
  const open = (e) => {
    e.preventDefault();
    return turnTo(p.name, String(new FormData(e.currentTarget).get("pin") ?? ""));
  };
  return html`<form class="flex flex-wrap items-end gap-3" data-person=${p.name} @submit=${open}>
    <strong class="w-full">${p.name}</strong>
    ${p.locked ? pinBox(say("day.people.pinOf", { name: p.name })) : nothing}
    <button type="submit">${say("day.people.take", { name: p.name })}</button>
  </form>`;
}

/** @param {import("./people.js").Person} me */
function own(me) {
  const set = async (e) => {
    e.preventDefault();
    const pin = String(new FormData(e.currentTarget).get("pin"));
    if (!isPin(pin)) tell("problem", say("day.people.badPin", { least: LEAST, most: MOST }));
    else {
      await setPin(me.name, pin);
      tell("done", say("day.people.pinSet"));
    }
    return show("kit");
  };
  const drop = async () => {
    await setPin(me.name, "");
    tell("done", say("day.people.pinGone"));
    return show("kit");
  };
  return html`<form class="flex flex-wrap items-end gap-3" id="pin" @submit=${set}>
    ${pinBox(me.locked ? say("day.people.otherPin") : say("day.people.pin"))}
    <button type="submit">${say("day.people.setPin")}</button>
    ${me.locked ? html`<button type="button" @click=${drop}>${say("day.people.noPin")}</button>` : nothing}
    <p class="quiet w-full">${say("day.people.pinHow")}</p>
  </form>`;
}

/** The cards of the kit about people and the device's name. */
export async function peopleCards() {
  const all = await people();
  const me = all.find((p) => p.name === book.person);
  const others = all.filter((p) => p.name !== book.person && (p.token || p.locked));
  const rename = (e) => {
    setDeviceName(e.currentTarget.value);
    return again();
  };
  return html`<section class="card flex flex-col gap-3" id="people">
      <h2>${say("day.people.title")}</h2>
      ${me ? html`<p>${say("day.people.isHere", { name: me.name })}</p>` : nothing} ${others.map(other)} ${me?.token ? own(me) : nothing}
    </section>
    <section class="card flex flex-col gap-3">
      <h2>${say("day.people.add")}</h2>
      <p class="quiet">${say("day.people.addHow")}</p>
      ${codeForm(tell, again)}
    </section>
    <p>
      <label
        ><span class="label">${say("day.kit.device")}</span
        ><input class="w-full" id="device-name" maxlength="80" .value=${live(deviceName())} @change=${rename}
      /></label>
    </p>`;
}
