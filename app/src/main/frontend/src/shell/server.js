// Talking to the server: what goes wrong has words, what may be asked again is, and the page shows when it waits.
import { bearer } from "./device-token.js";
import { say } from "./say.js";

/** What the server, or the way to it, answered instead; `status` is 0 without a link, `revoked` when this device is let in no more. */
export class Failure extends Error {
  /** @param {number} status @param {string} message @param {boolean} [revoked] */
  constructor(status, message, revoked = false) {
    super(message);
    this.status = status;
    this.revoked = revoked;
  }
}

/** Waits before a question is asked again, in milliseconds. */
const AGAIN_AFTER = [300, 900];
/** Answers of a proxy whose server is just starting. */
const PASSING = [502, 503, 504];
/** From this many milliseconds on a page says that it waits. */
const SLOW = 400;

let waiting = 0;

/** @template T @param {Promise<T>} work @returns {Promise<T>} */
async function shown(work) {
  waiting++;
  const slow = setTimeout(() => document.documentElement.toggleAttribute("data-busy", waiting > 0), SLOW);
  try {
    return await work;
  } finally {
    clearTimeout(slow);
    if (--waiting === 0) document.documentElement.removeAttribute("data-busy");
  }
}

const sleep = (ms) => new Promise((over) => setTimeout(over, ms));

/** Asks once; undefined without a link. */
async function once(path, options) {
  const headers = {
    Accept: "application/json, application/geo+json, */*;q=0.1",
    ...(path.startsWith("/api/day/") ? bearer() : {}),
    ...options.headers,
  };
  try {
    return await fetch(path, { credentials: "same-origin", ...options, headers });
  } catch (e) {
    if (e.name === "AbortError") throw e;
    return undefined;
  }
}

async function asked(path, options) {
  const answer = await once(path, options);
  const passing = answer === undefined || PASSING.includes(answer.status);
  if (!passing || options.method || options.patient === false) return answer;
  // a question changes nothing, so that it may be asked again
  for (const ms of navigator.onLine ? AGAIN_AFTER : []) {
    await sleep(ms);
    const next = await once(path, options);
    if (next && !PASSING.includes(next.status)) return next;
  }
  return answer;
}

/** A request whose answer is sound; else a Failure that is fit to be shown. @param {string} path @param {RequestInit & {patient?: boolean}} [options] */
export async function request(path, options = {}) {
  const answer = await shown(asked(path, options));
  if (answer === undefined) throw new Failure(0, say("server.noLink"));
  if (answer.ok) return answer;
  if (answer.status === 401) dispatchEvent(new Event("signed-out"));
  const message = (await messageOf(answer)) ?? say("server.failed", { status: String(answer.status) });
  throw new Failure(answer.status, message, answer.headers.get("Device-State") === "revoked");
}

async function messageOf(answer) {
  try {
    return (await answer.json()).message;
  } catch {
    return undefined; // not from Whinridge, a proxy's page perhaps: the status says what is known
  }
}

/** @param {string} path @param {RequestInit & {patient?: boolean}} [options] */
export async function getJson(path, options) {
  return (await request(path, options)).json();
}

/** The header by which a desk page shows that a request is its own. */
export function token() {
  const meta = (name) => /** @type {HTMLMetaElement} */ (document.querySelector(`meta[name="${name}"]`)).content;
  return { [meta("csrf-header")]: meta("csrf-token") };
}

/** POST of JSON from a desk page, with the page's own token. @param {string} path @param {unknown} body */
export async function post(path, body) {
  const headers = { "Content-Type": "application/json", ...token() };
  return getJson(path, { method: "POST", body: JSON.stringify(body), headers });
}

/** POST of a form's fields from a desk page. @param {string} path @param {FormData} fields */
export async function postForm(path, fields) {
  const body = new URLSearchParams([...fields].map(([name, value]) => [name, String(value)]));
  return getJson(path, { method: "POST", body, headers: token() });
}

/** POST of a file from a desk page. @param {string} path @param {File} file */
export async function postFile(path, file) {
  const body = new FormData();
  body.append("file", file, file.name);
  return getJson(path, { method: "POST", body, headers: token() });
}

/** Takes what is at an address away. @param {string} path */
export async function takeAway(path) {
  await request(path, { method: "DELETE", headers: token() });
}
