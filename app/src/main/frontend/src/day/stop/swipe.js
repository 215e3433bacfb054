/** Turns pages by a swipe. @param {HTMLElement} element @param {(step: number) => void} turn */
export function swipe(element, turn) {
  let from = null;
  element.addEventListener("touchstart", (e) => (from = e.touches.length === 1 ? e.touches[0] : null), { passive: true });
  element.addEventListener(
    "touchend",
    (e) => {
      const to = e.changedTouches[0];
      const level = from && Math.abs(to.clientX - from.clientX) > 80 && Math.abs(to.clientY - from.clientY) < 40;
      if (level) turn(to.clientX < from.clientX ? 1 : -1);
      from = null;
    },
    { passive: true },
  );
}
