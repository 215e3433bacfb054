// The entries of a legend: what each is called, and its symbol.
import { say } from "../shell/say.js";
import { html, nothing } from "../shell/view.js";
import { url } from "./look.js";

/** What an entry of a legend is called; `one` when the look has no others to tell it from. @param {any} plan @param {number} k @param {string} one */
export function entrySaid(plan, k, one) {
  return plan.entries[k].label || (plan.by !== "one" && k === plan.entries.length - 1 ? say("map.everythingElse") : one);
}

/** The lines of a legend; entries that draw nothing are left out. @param {any} plan @param {string} one */
export function legend(plan, one) {
  return plan.entries.map((e, k) =>
    e.draws.length === 0 ? nothing : html`<li><img src=${url(e.symbol)} alt="" /><span>${entrySaid(plan, k, one)}</span></li>`,
  );
}
