// What depends on what in a form, drawn: what is read stands left of what reads it; the way of a circle is marked.
import { say } from "../../shell/say.js";
import { html, nothing, svg } from "../../shell/view.js";

/** @type {Record<string, import("../../shell/say.js").MessageKey>} */
export const PART = {
  section_ask_when: "desk.form.askWhen",
  block_ask_when: "desk.form.askWhen",
  ask_when: "desk.form.askWhen",
  work_out: "desk.form.workOut",
  check: "desk.shared.check",
  message: "desk.form.message",
  code_fits: "desk.shared.codes",
  prefill: "desk.source.beginsWith",
  shared_rule: "desk.shared.rule",
};
const WIDE = 190;
const HIGH = 30;
const GAP = 70;

/** How many steps stand before each name; names in a circle are told. @param {{by: string, reads: string}[]} uses */
export function steps(uses) {
  const depth = new Map();
  const circle = new Set();
  const going = /** @type {string[]} */ ([]);
  const of = (name) => {
    if (depth.has(name)) return depth.get(name);
    const at = going.indexOf(name);
    if (at >= 0) {
      going.slice(at).forEach((n) => circle.add(n));
      return 0;
    }
    going.push(name);
    let most = 0;
    for (const u of uses) if (u.by === name) most = Math.max(most, of(u.reads) + 1);
    going.pop();
    depth.set(name, most);
    return most;
  };
  for (const u of uses) of(u.by);
  return { depth, circle };
}

/** @param {any} state @param {{by: string, part: string, reads: string}[]} uses */
export function drawing(state, uses) {
  if (uses.length === 0) return html`<p class="quiet">${say("desk.shared.nothingDepends")}</p>`;
  const { depth, circle } = steps(uses);
  const columns = [];
  for (const [name, d] of depth) (columns[d] ??= []).push(name);
  const at = new Map();
  columns.forEach((names, c) => names?.forEach((n, r) => at.set(n, { x: 6 + c * (WIDE + GAP), y: 6 + r * (HIGH + 12) })));
  const width = columns.length * (WIDE + GAP);
  const height = Math.max(...columns.map((c) => c?.length ?? 0)) * (HIGH + 12) + 6;
  const line = (u) => {
    const [a, b] = [at.get(u.reads), at.get(u.by)];
    const [x1, y1, x2, y2] = [a.x + WIDE, a.y + HIGH / 2, b.x, b.y + HIGH / 2];
    const round = circle.has(u.by) && circle.has(u.reads);
    return svg`<path d=${`M${x1} ${y1}C${x1 + GAP / 2} ${y1} ${x2 - GAP / 2} ${y2} ${x2} ${y2}`} class=${round ? "use circle" : "use"}><title>${state.labelOf(u.by)}, ${say(PART[u.part])}: ${state.labelOf(u.reads)}</title></path>`;
  };
  const box = ([name, { x, y }]) => {
    const label = state.labelOf(name);
    return svg`<g transform=${`translate(${x} ${y})`} class=${circle.has(name) ? "use-box circle" : "use-box"} @click=${() => state.goTo(name)}>
      <rect width=${WIDE} height=${HIGH} rx="3"></rect><svg x="8" width=${WIDE - 14} height=${HIGH}><text y=${HIGH / 2 + 5}>${label}</text></svg><title>${label}</title></g>`;
  };
  return html`${circle.size ? html`<p class="point firm">${say("desk.shared.circle", { which: [...circle].map((n) => state.labelOf(n)).join(", ") })}</p>` : nothing}
    <div class="uses">
      <svg width=${width} height=${height} role="img" aria-label=${say("desk.shared.depends")}>${uses.map(line)} ${[...at].map(box)}</svg>
    </div>
    <ul class="sr-only">
      ${uses.map((u) => html`<li>${state.labelOf(u.by)}, ${say(PART[u.part])}: ${state.labelOf(u.reads)}</li>`)}
    </ul>`;
}
