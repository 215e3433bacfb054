// A small way to make elements: h("p", { class: "quiet", onclick }, "text", child).
export function h(tag, attributes = {}, ...children) {
  const e = document.createElement(tag);
  for (const [k, v] of Object.entries(attributes)) {
    if (v === undefined || v === null || v === false) continue;
    if (k.startsWith("on")) e.addEventListener(k.slice(2), v);
    else if (k in e && typeof v !== "string") e[k] = v;
    else e.setAttribute(k, v === true ? "" : v);
  }
  for (const c of children.flat(Infinity)) if (c !== undefined && c !== null && c !== false) e.append(c);
  return e;
}

let pressed = false;
addEventListener("pointerdown", () => (pressed = true), true);
const waiting = [];
for (const end of ["pointerup", "pointercancel"])
  addEventListener(end, () => {
    pressed = false;
    setTimeout(() => waiting.splice(0).forEach((draw) => draw())); // after the click that may follow
  }, true);

/**
 * Draws anew once nothing is being pressed. Leaving a field by pressing a button changes the field first: were the button made anew then, it would never be
 * clicked.
 */
export function afterPress(draw) {
  if (!pressed) return draw();
  waiting.push(draw);
}

const SVG = "http://www.w3.org/2000/svg";

export function svg(tag, attributes = {}, ...children) {
  const e = document.createElementNS(SVG, tag);
  for (const [k, v] of Object.entries(attributes)) e.setAttribute(k, v);
  for (const c of children.flat()) e.append(c);
  return e;
}
