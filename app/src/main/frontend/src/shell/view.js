// Drawing what is made again and again from data: views are lit-html templates, drawn into an element that keeps its own.
import { html, nothing, render, svg } from "lit-html";
import { guard } from "lit-html/directives/guard.js";
import { live } from "lit-html/directives/live.js";
import { ref } from "lit-html/directives/ref.js";
import { repeat } from "lit-html/directives/repeat.js";
import { until } from "lit-html/directives/until.js";

export { guard, html, live, nothing, ref, render, repeat, svg, until };

let pressed = false;
/** @type {(() => void)[]} */
const waiting = [];
if (typeof addEventListener === "function") {
  addEventListener("pointerdown", () => (pressed = true), true);
  for (const end of ["pointerup", "pointercancel"])
    addEventListener(
      end,
      () => {
        pressed = false;
        setTimeout(() => waiting.splice(0).forEach((draw) => draw())); // after the click that may follow
      },
      true,
    );
}

/**
 * Draws once nothing is being pressed. Leaving a field by pressing a button changes the field first: were something put above the button then, it would not
 * be under the pointer any more and never be clicked.
 * @param {() => void} draw
 */
export function afterPress(draw) {
  if (!pressed) return draw();
  if (!waiting.includes(draw)) waiting.push(draw);
}

/** Does something once what was drawn stands and nobody waits. Gives the function that lets it be. @param {() => void} deed */
export function whenIdle(deed) {
  if (!("requestIdleCallback" in window)) {
    const wait = setTimeout(deed, 50);
    return () => clearTimeout(wait);
  }
  const wait = window.requestIdleCallback(deed, { timeout: 1000 });
  return () => window.cancelIdleCallback(wait);
}

/**
 * An element and what is drawn in it. Gives the function that draws anew.
 * @param {HTMLElement | DocumentFragment} box
 * @param {() => unknown} view
 */
export function drawn(box, view) {
  if (box instanceof HTMLElement) box.replaceChildren();
  const draw = () => void render(view(), box);
  const again = () => afterPress(draw);
  again.now = draw;
  return again;
}

/** An element of a view, made once and found again. @param {unknown} view @returns {HTMLElement} */
export function element(view) {
  const box = document.createElement("div");
  render(view, box);
  return /** @type {HTMLElement} */ (box.firstElementChild);
}
