// Letting this device in: by the code behind the # of the address, which a camera read, or by one that somebody types.
import { Failure } from "../shell/server.js";
import { say } from "../shell/say.js";
import { html } from "../shell/view.js";
import { pair } from "./people.js";

/** As a code is written, with or without its dash. */
const PATTERN = "[0-9A-Za-z]{4}[\\s\\-]?[0-9A-Za-z]{4}";

/** @typedef {(kind: "done" | "problem", text: string) => void} Tell */

/** Uses a code; tells what came of it. @param {string} code @param {Tell} tell */
async function use(code, tell) {
  try {
    const person = await pair(code);
    tell("done", say("day.pair.done", { name: person }));
  } catch (e) {
    if (!(e instanceof Failure)) throw e;
    tell("problem", e.message);
  }
}

/** Uses the code of the address, once. @param {Tell} tell */
export async function pairing(tell) {
  const code = /^#pair=([0-9A-Za-z-]+)$/.exec(location.hash)?.[1];
  if (!code) return;
  history.replaceState(null, "", location.pathname);
  await use(code, tell);
}

/** A box for a code. @param {Tell} tell @param {() => Promise<unknown>} then */
export function codeForm(tell, then) {
  const send = async (e) => {
    e.preventDefault();
    const form = /** @type {HTMLFormElement} */ (e.currentTarget);
    await use(String(new FormData(form).get("code")), tell);
    await then();
  };
  return html`<form class="flex flex-wrap items-end gap-3" id="pair" @submit=${send}>
    <label class="flex-1"
      ><span class="label">${say("day.pair.code")}</span
      ><input
        class="w-full code"
        name="code"
        pattern=${PATTERN}
        placeholder=${say("day.pair.example")}
        autocapitalize="characters"
        autocomplete="off"
        spellcheck="false"
        required /></label
    ><button type="submit">${say("day.pair.use")}</button>
  </form>`;
}
