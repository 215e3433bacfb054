// Questions are moved by their grips, with mouse, pen or finger, and chosen by a rectangle drawn over the margin.
/** So far a pointer moves before it drags, in pixels. */
const FAR = 5;

/** Where a pointer over the sheet would put what is dragged. @param {HTMLElement} list @param {number} y */
function placeAt(list, y) {
  for (const line of /** @type {NodeListOf<HTMLElement>} */ (list.querySelectorAll("[data-line]"))) {
    const box = line.getBoundingClientRect();
    if (y < box.top + box.height / 2) {
      const section = /** @type {HTMLElement} */ (line.closest("[data-section]"));
      return { at: line, section: Number(section.dataset.section), before: line.dataset.line ?? "" };
    }
    if (line === [...(line.parentElement?.querySelectorAll("[data-line]") ?? [])].at(-1)) {
      const section = /** @type {HTMLElement} */ (line.closest("[data-section]"));
      if (y < section.getBoundingClientRect().bottom) return { at: section, section: Number(section.dataset.section), before: "" };
    }
  }
  const under = /** @type {HTMLElement[]} */ ([...list.querySelectorAll("[data-section]")])
    .filter((s) => y >= s.getBoundingClientRect().top)
    .at(-1);
  return under ? { at: under, section: Number(under.dataset.section), before: "" } : null;
}

function dragged(list, state, grip, begun) {
  let place = /** @type {ReturnType<typeof placeAt>} */ (null);
  let moved = false;
  const mark = (next) => {
    if (place?.at !== next?.at) place?.at.removeAttribute("data-drop");
    place = next;
    place?.at.setAttribute("data-drop", place.before ? "before" : "into");
  };
  const move = (e) => {
    if (!moved && Math.abs(e.clientY - begun.clientY) < FAR) return;
    if (!moved && !state.chosen.includes(grip.dataset.grip)) state.choose([grip.dataset.grip]);
    moved = true;
    mark(placeAt(list, e.clientY));
    const edge = e.clientY < 80 ? -12 : e.clientY > window.innerHeight - 80 ? 12 : 0;
    if (edge) window.scrollBy(0, edge);
  };
  const end = (e) => {
    grip.removeEventListener("pointermove", move);
    for (const over of ["pointerup", "pointercancel"]) grip.removeEventListener(over, end);
    const to = place;
    mark(null);
    if (e.type === "pointercancel" || !moved) return moved || state.choose([grip.dataset.grip]);
    if (to && !state.chosen.includes(to.before)) state.edit({ op: "put", questions: state.chosen, section: to.section, before: to.before });
  };
  grip.setPointerCapture(begun.pointerId);
  grip.addEventListener("pointermove", move);
  for (const over of ["pointerup", "pointercancel"]) grip.addEventListener(over, end);
}

function rectangle(list, state, begun) {
  const box = document.createElement("div");
  box.className = "choosing-box";
  const draw = (e) => {
    if (!box.isConnected && Math.hypot(e.clientX - begun.clientX, e.clientY - begun.clientY) < FAR) return;
    list.append(box);
    const [x, y] = [Math.min(e.clientX, begun.clientX), Math.min(e.clientY, begun.clientY)];
    Object.assign(box.style, {
      left: `${x}px`,
      top: `${y}px`,
      width: `${Math.abs(e.clientX - begun.clientX)}px`,
      height: `${Math.abs(e.clientY - begun.clientY)}px`,
    });
  };
  const end = () => {
    removeEventListener("pointermove", draw);
    removeEventListener("pointerup", end);
    if (!box.isConnected) return;
    const over = box.getBoundingClientRect();
    box.remove();
    const inside = (l) => {
      const r = l.getBoundingClientRect();
      return r.bottom > over.top && r.top < over.bottom;
    };
    const lines = /** @type {HTMLElement[]} */ ([...list.querySelectorAll("[data-line]")]);
    state.choose(lines.filter(inside).map((l) => l.dataset.line ?? ""));
  };
  addEventListener("pointermove", draw);
  addEventListener("pointerup", end);
}

/** @param {HTMLElement} page the element in which the sheet is drawn @param {any} state */
export function dragging(page, state) {
  page.addEventListener("pointerdown", (e) => {
    const target = /** @type {HTMLElement} */ (e.target);
    const list = /** @type {HTMLElement | null} */ (page.querySelector("#questions"));
    if (e.button !== 0 || !list) return;
    const grip = target.closest("[data-grip]");
    if (grip) {
      e.preventDefault();
      return dragged(list, state, grip, e);
    }
    if (e.pointerType === "touch" || target.closest("input, button, select, textarea, a, summary, label, .sheet, #editor, .typing")) return;
    if (target.closest("#questions")) rectangle(list, state, e);
  });
}
