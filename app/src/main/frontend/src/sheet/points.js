// Open points of a sheet: their marks, the trail over the questions, and how many there are in words.
import { say } from "../shell/say.js";
import { ROW } from "../shell/states.js";
import { html, svg } from "../shell/view.js";

/** How heavy a point is; the heaviest of a question is drawn. */
const WEIGHT = { firm: 3, needed: 2, soft: 1, wanted: 0 };
/** A gap for what is missing, a notch for a firm check, a ripple for a soft one. */
const MARK = {
  firm: "M1 5h6l3 8 3-8h10",
  soft: "M1 8c2-4 4-4 6 0s4 4 6 0 4-4 6 0 3 3 4 0",
  needed: "M1 8h6M17 8h6",
  wanted: "M1 8h6M17 8h6",
};
const STRETCH = 14;

/** A question is known by its name, in a list together with its row. @param {{name: string, row?: string}} q */
export const keyOf = (q) => (q.row ? q.row + "/" : "") + q.name;

/** The mark of an open point. @param {string} kind */
export function pointMark(kind) {
  return html`<svg viewBox="0 0 24 16" width="24" height="16" class="symbol" aria-hidden="true">
    <path
      d=${MARK[kind]}
      fill="none"
      stroke=${kind === "firm" ? "#94451f" : "currentColor"}
      stroke-width=${kind === "wanted" ? 1.2 : 2.2}
    ></path>
  </svg>`;
}

function stretch(kind, x) {
  if (kind === "firm") return "h3l4 7 4-7h3";
  if (kind === "soft") return "q3.5-9 7 0t7 0";
  return kind === undefined ? `h${STRETCH}` : `h2M${x + STRETCH - 2} 8h2`;
}

/** The questions that can be answered, in order. */
function answered(view) {
  const there = (r) => r.state !== ROW.MENDED && r.state !== ROW.GONE;
  return view.sections
    .flatMap((s) => [...s.questions, ...(s.rows ?? []).filter(there).flatMap((r) => r.questions)])
    .filter((q) => q.type !== "read" && q.type !== "picture");
}

/** The trail over a sheet: one stretch for each question, broken, notched or rippled where something is open. */
export function trail(view) {
  const worst = new Map();
  for (const p of view.points) {
    const key = keyOf({ name: p.question, row: p.row });
    if (!worst.has(key) || WEIGHT[p.kind] > WEIGHT[worst.get(key)]) worst.set(key, p.kind);
  }
  const all = answered(view);
  const d = "M0 8" + all.map((q, i) => stretch(worst.get(keyOf(q)), i * STRETCH)).join("");
  const line = svg`<path d=${d} fill="none" stroke="currentColor" stroke-width="2.2" vector-effect="non-scaling-stroke"></path>`;
  return html`<svg viewBox="-1 0 ${all.length * STRETCH + 2} 16" preserveAspectRatio="none" aria-hidden="true">${line}</svg>`;
}

/** What is open in words: "1 to mend, 2 to fill". */
export function openWords(points) {
  const n = (kind) => points.filter((p) => p.kind === kind).length;
  const parts = [
    n("firm") && say("sheet.toMend", { n: n("firm") }),
    n("needed") && say("sheet.toFill", { n: n("needed") }),
    n("soft") && say("sheet.toLookAt", { n: n("soft") }),
    n("wanted") && say("sheet.wantedCount", { n: n("wanted") }),
  ].filter(Boolean);
  return parts.length ? parts.join(say("list.comma")) : say("sheet.nothingOpen");
}
