// What several views of the day book say.
import { say } from "../shell/say.js";
import { CLOCK_OFF_SECONDS } from "../shell/states.js";
import { html, nothing } from "../shell/view.js";
import { book, refresh, tell } from "./book.js";
import { codeForm } from "./pairing.js";

/** The way in for a device that is not let in, or not any more. @param {(view: string) => Promise<unknown>} show */
export function signInNote(show) {
  if (!book.signedOut) return nothing;
  const then = async () => {
    await refresh();
    await show(book.view);
  };
  return html`<div class="told">
    <p>${say("day.notSignedIn")}</p>
    <p class="my-3"><a class="button main" href="/sign-in?next=/day">${say("do.signIn")}</a></p>
    ${codeForm(tell, then)}
  </div>`;
}

/** What the office asks, and what is wrong with the clock. @param {number} carried how many visits and photos are carried */
export function officeNotes(carried) {
  const asked = book.me?.asked && carried > 0 ? html`<div class="told" id="asked">${say("day.asked")}</div>` : nothing;
  const off = Math.abs(book.clockOff) > CLOCK_OFF_SECONDS;
  const clock = off
    ? html`<div class="problem" id="clock">${say("day.clockOff", { h: Math.round(Math.abs(book.clockOff) / 60) })}</div>`
    : nothing;
  return html`${asked}${clock}`;
}

/** A view that needs a round, when none is on the device. */
export const noRound = () => ({ body: html`<p>${say("day.noRound")}</p>` });
