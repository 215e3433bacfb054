// What several views of the day book say.
import { say } from "../shell/say.js";
import { html, nothing } from "../shell/view.js";
import { book } from "./book.js";

/** The way back for somebody who is not signed in any more. */
export function signInNote() {
  if (!book.signedOut) return nothing;
  return html`<div class="told">
    <p>${say("day.notSignedIn")}</p>
    <p><a class="button main" href="/sign-in?next=/day">${say("do.signIn")}</a></p>
  </div>`;
}

/** A view that needs a round, when none is on the device. */
export const noRound = () => ({ body: html`<p>${say("day.noRound")}</p>` });
