// How large a pack is, and of what: told before it is taken out, at the desk and outdoors.
import { bytes } from "./format.js";
import { say } from "./say.js";
import { PACK } from "./states.js";
import { html, nothing } from "./view.js";

/** @typedef {{part: string, name: string, bytes: number, n: number, of: number, cut: boolean}} Of */

/** What some of a pack is. @param {Of} o */
function said({ part, name, n, of }) {
  switch (part) {
    case PACK.ASSETS:
      return say("pack.assets", { n, of, layer: name });
    case PACK.LOOK_UPS:
      return say("pack.lookUps", { n, of, layer: name });
    case PACK.LAST_VISITS:
      return say("pack.lastVisits", { n });
    case PACK.FORMS:
      return say("pack.form", { title: name });
    case PACK.PICTURES:
      return say("pack.pictures");
    case PACK.MAP:
      return say("pack.map", { n });
    case PACK.TILES:
      return say("pack.tiles", { n, layer: name });
    case PACK.BASEMAP:
      return name ? say("pack.basemap", { name, n }) : say("pack.ground");
    default:
      return say("pack.plan");
  }
}

/** Why some of it is left out. @param {Of} o */
function left({ part, cut }) {
  if (!cut) return "";
  if (part === PACK.BASEMAP) return say("pack.cut.basemap");
  return part === PACK.MAP ? say("pack.cut.map") : say("pack.cut.assets");
}

/** The parts of a pack, each with its size. @param {Of[]} parts */
export const packParts = (parts) =>
  html`<ul class="pack-parts">
    ${parts.map(
      (o) =>
        html`<li>
          <span>${said(o)}${left(o) ? html`<span class="quiet"> ${left(o)}</span>` : nothing}</span
          ><span class="quiet">${bytes(o.bytes)}</span>
        </li>`,
    )}
  </ul>`;
