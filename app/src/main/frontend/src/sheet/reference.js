// Reference pictures beside questions and codes: where the device or the desk has them.
import { html, nothing } from "../shell/view.js";

/** A picture of an id; nothing when there is none. @param {string | undefined} id @param {string} said what it shows @param {any} act @param {string} [shape] */
export function reference(id, said, act, shape = "reference") {
  const url = id ? act.picture?.(id) : "";
  return url ? html`<img class=${shape} src=${url} alt=${said} loading="lazy" />` : nothing;
}
