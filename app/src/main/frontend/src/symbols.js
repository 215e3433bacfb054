// The status shapes and signs, shipped so that they look the same whatever fonts a machine has: in lists, on maps and in legends. Each is drawn in a 24 × 24 box; never colour alone.
import { STOP, VISIT } from "./states.js";
import { svg } from "./dom.js";

const INK = "#1f2a30";
const shapes = {
  [STOP.TO_DO]: () => [ring()],
  [STOP.STARTED]: () => [ring(), path("M4 12a8 8 0 0 0 16 0z", { fill: INK })],
  [STOP.DONE]: () => [disc()],
  [STOP.NO_ACCESS]: () => [ring(), path("M5 19 19 5", { "stroke-width": 2.6 })],
  [STOP.GONE]: () => [circle({ r: 8, fill: "white", "stroke-dasharray": "4 3" })],
  [STOP.SENT_BACK]: () => [disc("#94451f"), path("M15.5 9.5a4.3 4.3 0 1 0 .6 4.4", { stroke: "white" }), path("M16.6 6.6v3.6H13", { stroke: "white" })],
  carried: () => [circle({ r: 5.5, cy: 9, fill: "#d9a400" }), path("M2.5 13v6.5h19V13")],
  [VISIT.WAITING]: () => [circle({ r: 6, cy: 9, fill: "#d9a400" }), path("M3 20h18")],
  [VISIT.ACCEPTED]: () => [circle({ r: 6, cy: 15, fill: "#4f7359" }), path("M3 4h18")],
  clash: () => [circle({ r: 6, cx: 8.5, fill: "#94451f" }), circle({ r: 6, cx: 15.5, fill: "none" })],
  [VISIT.SET_ASIDE]: () => [path("M4 6h16v12H4z", { fill: "white" }), path("M8 12h8")],
  up: () => [sign("M12 20V5M5.5 11.5 12 5l6.5 6.5")],
  down: () => [sign("M12 4v15M5.5 12.5 12 19l6.5-6.5")],
  left: () => [sign("M20 12H5M11.5 5.5 5 12l6.5 6.5")],
  right: () => [sign("M4 12h15M12.5 5.5 19 12l-6.5 6.5")],
  photo: () => [path("M3 5h18v14H3z", { fill: "white" }), path("M3 16l5-5 4 4 3.5-3.5L21 17"), circle({ r: 1.6, cx: 16.5, cy: 9, fill: INK, "stroke-width": 1 })],
  here: () => [path("M12 2 20 21l-8-4.5L4 21z", { fill: INK, stroke: "#fbf9f3", "stroke-width": 1.6 })],
};

function circle(a) {
  return svg("circle", { cx: 12, cy: 12, stroke: INK, "stroke-width": 2, ...a });
}
/** A sign on a button, in the colour of its words. */
function sign(d) {
  return svg("path", { d, fill: "none", stroke: "currentColor", "stroke-width": 2.4 });
}
const ring = () => circle({ r: 8, fill: "white" });
const disc = (fill = INK) => circle({ r: 8, fill });
function path(d, a = {}) {
  return svg("path", { d, fill: "none", stroke: INK, "stroke-width": 2, ...a });
}

/** The symbol of a status as an SVG element; the word beside it says the same, so it is hidden from readers. */
export function symbol(name) {
  return svg("svg", { viewBox: "0 0 24 24", class: "symbol", "aria-hidden": "true" }, (shapes[name] ?? shapes[STOP.TO_DO])());
}

/** The symbol as an image address for the map. */
export function symbolUrl(name) {
  const s = symbol(name);
  s.setAttribute("xmlns", "http://www.w3.org/2000/svg");
  s.setAttribute("width", "24");
  s.setAttribute("height", "24");
  return "data:image/svg+xml;utf8," + encodeURIComponent(s.outerHTML);
}

/** Fills every element that asks for a symbol by data-symbol. */
export function fillSymbols(root = document) {
  for (const e of root.querySelectorAll("[data-symbol]")) e.replaceChildren(symbol(e.dataset.symbol));
}
