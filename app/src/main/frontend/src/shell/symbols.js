// The status shapes and signs, shipped so that they look the same whatever fonts a machine has: in lists, on maps and in legends. Each is drawn in a 24 × 24 box; never colour alone.
import { STOP, VISIT } from "./states.js";
import { html, render, svg } from "./view.js";

const INK = "#1f2a30";
const disc = (cx, cy, r, fill) => svg`<circle cx=${cx} cy=${cy} r=${r} fill=${fill} stroke=${INK} stroke-width="2"></circle>`;
const ring = disc(12, 12, 8, "white");
const path = (d, fill = "none", stroke = INK, width = 2) => svg`<path d=${d} fill=${fill} stroke=${stroke} stroke-width=${width}></path>`;
/** A sign on a button, in the colour of its words. */
const sign = (d) => path(d, "none", "currentColor", 2.4);

const shapes = {
  [STOP.TO_DO]: ring,
  [STOP.STARTED]: [ring, path("M4 12a8 8 0 0 0 16 0z", INK)],
  [STOP.DONE]: disc(12, 12, 8, INK),
  [STOP.NO_ACCESS]: [ring, path("M5 19 19 5", "none", INK, 2.6)],
  [STOP.GONE]: svg`<circle cx="12" cy="12" r="8" fill="white" stroke=${INK} stroke-width="2" stroke-dasharray="4 3"></circle>`,
  [STOP.SENT_BACK]: [
    disc(12, 12, 8, "#94451f"),
    path("M15.5 9.5a4.3 4.3 0 1 0 .6 4.4", "none", "white"),
    path("M16.6 6.6v3.6H13", "none", "white"),
  ],
  carried: [disc(12, 9, 5.5, "#d9a400"), path("M2.5 13v6.5h19V13")],
  [VISIT.WAITING]: [disc(12, 9, 6, "#d9a400"), path("M3 20h18")],
  [VISIT.ACCEPTED]: [disc(12, 15, 6, "#4f7359"), path("M3 4h18")],
  clash: [disc(8.5, 12, 6, "#94451f"), disc(15.5, 12, 6, "none")],
  [VISIT.SET_ASIDE]: [path("M4 6h16v12H4z", "white"), path("M8 12h8")],
  up: sign("M12 20V5M5.5 11.5 12 5l6.5 6.5"),
  down: sign("M12 4v15M5.5 12.5 12 19l6.5-6.5"),
  left: sign("M20 12H5M11.5 5.5 5 12l6.5 6.5"),
  right: sign("M4 12h15M12.5 5.5 19 12l-6.5 6.5"),
  photo: [path("M3 5h18v14H3z", "white"), path("M3 16l5-5 4 4 3.5-3.5L21 17"), svg`<circle cx="16.5" cy="9" r="1.6" fill=${INK}></circle>`],
  here: path("M12 2 20 21l-8-4.5L4 21z", INK, "#fbf9f3", 1.6),
};

/** The symbol of a status; the word beside it says the same, so it is hidden from readers. @param {string} name @param {number} [turn] degrees clockwise */
export function symbol(name, turn = 0) {
  const shape = shapes[name] ?? ring;
  const kind = name === "left" || name === "right" ? "symbol along" : "symbol";
  return html`<svg viewBox="0 0 24 24" class=${kind} aria-hidden="true"><g transform=${`rotate(${turn} 12 12)`}>${shape}</g></svg>`;
}

/** The symbol as an image address for the map. @param {string} name */
export function symbolUrl(name) {
  const box = document.createElement("div");
  render(symbol(name), box);
  const s = /** @type {SVGElement} */ (box.querySelector("svg"));
  s.setAttribute("xmlns", "http://www.w3.org/2000/svg");
  s.setAttribute("width", "24");
  s.setAttribute("height", "24");
  return "data:image/svg+xml;utf8," + encodeURIComponent(s.outerHTML.replaceAll(/<!--.*?-->/g, ""));
}

/** Fills every element of a rendered page that asks for a symbol by data-symbol. @param {ParentNode} root */
export function fillSymbols(root = document) {
  for (const e of /** @type {NodeListOf<HTMLElement>} */ (root.querySelectorAll("[data-symbol]")))
    render(symbol(e.dataset.symbol ?? ""), e);
}
