// The people of this device: each with a token of their own, kept apart, and a PIN for who wants one.
import { Failure, getJson } from "../shell/server.js";
import { say } from "../shell/say.js";
import { useToken } from "../shell/device-token.js";
import { deviceId, deviceName } from "./device.js";
import { lock, pinWait, unlock } from "./pin.js";
import * as store from "./store.js";

/**
 * @typedef {{name: string, token?: string, locked?: import("./pin.js").Locked, wrong?: number, waitUntil?: number}} Person
 * `token` while nobody needs a PIN for it, `locked` once they do; both while the person is the one who is here.
 */

/** @returns {Promise<Person[]>} */
export const people = async () => (await store.get("meta", "people")) ?? [];

/** @param {Person[]} all */
const keep = (all) => store.put("meta", all, "people");

/** Changes what is kept of a person; one who is new is added. @param {string} name @param {(p: Person) => void} how */
async function change(name, how) {
  const all = await people();
  let one = all.find((p) => p.name === name);
  if (!one) all.push((one = { name }));
  how(one);
  await keep(all);
}

/** Who is here, with the token if it is open. */
export async function here() {
  const name = await store.get("meta", "person");
  const one = (await people()).find((p) => p.name === name);
  useToken(one?.token);
  return one;
}

/** Somebody was let in: they are here now; who was here before stays, locked if they have a PIN. @param {{token: string, person: string}} given */
async function letIn(given) {
  await away(given.person);
  await change(given.person, (p) => {
    p.token = given.token;
    delete p.locked; // a new token: the PIN is asked anew when it is set again
  });
  await store.put("meta", given.person, "person");
  useToken(given.token);
  return given.person;
}

/** Whoever is here goes: of a person with a PIN the open token goes too. @param {string} next */
async function away(next) {
  const name = await store.get("meta", "person");
  if (!name || name === next) return;
  await change(name, (p) => {
    if (p.locked) delete p.token;
  });
}

/** Lets this device in by a code made at the desk. @param {string} code */
export async function pair(code) {
  const body = JSON.stringify({ code, device: await deviceId(), name: deviceName() });
  return letIn(await getJson("/api/day/pair", { method: "POST", body, headers: { "Content-Type": "application/json" } }));
}

/** Lets this device in where somebody has signed in on it; undefined when nobody has. */
export async function bySession() {
  try {
    const session = await getJson("/api/own/session");
    const body = JSON.stringify({ device: await deviceId(), name: deviceName() });
    const headers = { "Content-Type": "application/json", [session.header]: session.token };
    return await letIn(await getJson("/api/own/device", { method: "POST", body, headers }));
  } catch (e) {
    if (e instanceof Failure && [401, 403].includes(e.status)) return undefined;
    throw e;
  }
}

/** A PIN for whoever is here; "" takes it away. @param {string} name @param {string} pin */
export async function setPin(name, pin) {
  const one = (await people()).find((p) => p.name === name);
  const locked = pin && one?.token ? await lock(one.token, pin) : undefined;
  await change(name, (p) => {
    if (locked) p.locked = locked;
    else delete p.locked;
    p.wrong = 0;
    p.waitUntil = 0;
  });
}

/**
 * Another person of this device takes over, without a network. Gives what stands in the way, in words; "" when nothing does.
 * @param {string} name @param {string} pin
 */
export const switchTo = (name, pin) => (trying = trying.then(() => attempt(name, pin)));

/** One try after the other, so that each wrong one counts. */
let trying = Promise.resolve("");

/** @param {string} name @param {string} pin @returns {Promise<string>} */
async function attempt(name, pin) {
  const one = (await people()).find((p) => p.name === name);
  if (!one) return say("day.people.gone", { name });
  if (one.locked && (await store.get("meta", "person")) !== name) {
    const wait = (one.waitUntil ?? 0) - Date.now();
    if (wait > 0) return say("day.people.wait", { n: Math.ceil(wait / 1000) });
    const token = await unlock(one.locked, pin);
    if (token === undefined) {
      const wrong = (one.wrong ?? 0) + 1;
      await change(name, (p) => {
        p.wrong = wrong;
        p.waitUntil = Date.now() + pinWait(wrong);
      });
      return say("day.people.wrongPin", { n: Math.ceil(pinWait(wrong) / 1000) });
    }
    one.token = token;
  }
  await away(name);
  await change(name, (p) => {
    p.token = one.token;
    p.wrong = 0;
    p.waitUntil = 0;
  });
  await store.put("meta", name, "person");
  useToken(one.token);
  return "";
}

/** The office knows the token of whoever is here no more. */
export async function tokenEnded() {
  const name = await store.get("meta", "person");
  useToken();
  if (name)
    await change(name, (p) => {
      delete p.token;
      delete p.locked;
    });
}
