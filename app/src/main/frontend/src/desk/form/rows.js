// How often a section that repeats is answered: the fewest and most rows, and whether those of the last visit come back.
import { check, numberBox } from "../../shell/controls.js";
import { say } from "../../shell/say.js";
import { html } from "../../shell/view.js";

/** As many rows as there may be. */
const MOST = 1000;

/** @param {any} state @param {any} s @param {number} n the section's place */
export function rowsOf(state, s, n) {
  const { least = 0, most = 0, fromLastVisit = false } = s.rows;
  const put = (more) => state.edit({ op: "section.set", section: n, property: "rows", value: { least, most, fromLastVisit, ...more } });
  const box = (value, name, said) =>
    numberBox(value, (v) => put({ [name]: v || 0 }), { min: 0, max: MOST, class: "w-20", said, id: `rows-${name}-${n}` });
  return html`<div class="rows-of flex flex-wrap items-center gap-2">
    <span>${say("desk.rows.least")}</span> ${box(least || "", "least", say("desk.rows.least"))} <span>${say("desk.rows.most")}</span>
    ${box(most || "", "most", say("desk.rows.most"))}
    <label class="flex items-center gap-2"
      >${check(say("desk.rows.again"), fromLastVisit, (on) => put({ fromLastVisit: on }), { id: `rows-again-${n}` })}</label
    >
    <span class="quiet">${say("desk.rows.name")} <span class="code">${s.name}</span></span>
  </div>`;
}
