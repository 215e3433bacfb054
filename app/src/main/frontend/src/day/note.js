// What to know on a round or at a stop: its words and pictures, out of what was taken along.
import { say } from "../shell/say.js";
import { html, nothing, until } from "../shell/view.js";
import { address } from "./form-files.js";

/** @typedef {{note: string, pictures?: string[]}} Note packs of an earlier day book have no pictures */

/** The notes of a pack's stops, by feature; made once. @type {WeakMap<any, Map<string, Note>>} */
const noted = new WeakMap();

/** @param {any} pack @param {string} id @returns {Note | undefined} nothing for what is no stop */
export function noteAt(pack, id) {
  const known = noted.get(pack) ?? new Map(pack.stops.map((s) => [s.feature, s]));
  noted.set(pack, known);
  return known.get(id);
}

/** A picture that is small until it is pressed. */
function picture(pack, id) {
  const hash = pack.parts["file-" + id];
  if (!hash) return nothing; // it is not at the office any more
  const at = address(hash);
  const turn = (e) => {
    const large = e.currentTarget.classList.toggle("large");
    e.currentTarget.setAttribute("aria-expanded", String(large));
  };
  return html`<button type="button" class="plain" aria-expanded="false" aria-label=${say("day.notePicture")} @click=${turn}>
    <img alt="" src=${typeof at === "string" ? at : until(at, nothing)} />
  </button>`;
}

/** A note with its pictures; nothing where there is nothing to know. @param {any} pack @param {Note | undefined} of @param {string} [look] classes of its words */
export function noteSaid(pack, of, look = "") {
  if (!of?.note && !of?.pictures?.length) return nothing;
  return html`<div class=${look} data-noted>
    ${of.note ? html`<p>${of.note}</p>` : nothing}${
      of.pictures?.length ? html`<p class="note-pictures">${of.pictures.map((id) => picture(pack, id))}</p>` : nothing
    }
  </div>`;
}
