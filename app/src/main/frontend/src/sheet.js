// Draws a sheet from the engine's view. One module for the desk and the day book. It decides nothing: what is asked, wrong or
// missing comes in with the view; what people do goes out through `act`.
import { ROW } from "./states.js";
import { h, svg } from "./dom.js";
import { answerNodes, TAPPED, TYPED } from "./sheet-answers.js";

const NEED = { needed: "needed", wanted: "wanted", free: "" };

/**
 * A sheet in an element.
 * act: { set(name, value, row), tap(name, code, row), putBack(), confirm(name, row), takeOffer(name, row), confirmSection(index), confirmSoft(key), addRow(list), removeRow(row), markRow(row, state),
 *   addPhoto(name, file, row), removePhoto(name, id, row), photo(id) → {url, note} }; a row is undefined outside of lists.
 */
export function makeSheet(root, deeds) {
  const drawn = new Map();
  /** The answer that was taken away last, until anything else is done. */
  let taken = null;
  const after = (told, deed) => (...args) => {
    taken = told(...args);
    return deed(...args);
  };
  const act = Object.fromEntries(Object.entries(deeds).map(([name, deed]) => [name, name === "photo" ? deed : after(() => null, deed)]));
  act.tap = after((name, code, row, away) => (away ? { key: keyOf({ name, row }), shown: away } : null), deeds.tap);
  const takeAway = (q) => after(() => ({ key: keyOf(q), shown: q.shown }), deeds.set)(q.name, null, q.row);
  root.classList.add("sheet");

  function draw(view, { page } = {}) {
    const pointsOf = group(view.points);
    const sections = view.sections.filter((s) => (page === undefined || s.page === page) && (s.questions.length > 0 || s.list?.asked));
    const box = document.activeElement?.closest?.("[data-question]");
    const keep = box && keyOf({ name: box.dataset.question, row: box.dataset.row });
    root.replaceChildren(...sections.map((s) => section(s, pointsOf, keep)));
    if (keep) refocus(keep);
  }

  function refocus(key) {
    const q = drawn.get(key);
    if (q && q.focus && document.contains(q.focus) && document.activeElement !== q.focus) {
      const at = q.focus.selectionStart;
      q.focus.focus({ preventScroll: true });
      if (at !== undefined && at !== null && q.focus.setSelectionRange) q.focus.setSelectionRange(at, at);
    }
  }

  function section(s, pointsOf, keep) {
    const same = s.toConfirm > 0 && h("button", { type: "button", class: "plain", onclick: () => act.confirmSection(s.index) }, `All ${s.toConfirm} the same`);
    return h("section", { class: "sheet-section", "data-section": String(s.index) },
      h("header", {}, h("h2", {}, s.title), same),
      s.intro && h("p", { class: "q quiet" }, s.intro),
      s.list ? rows(s, pointsOf, keep) : lines(s.questions, s.blocks, pointsOf, keep));
  }

  /** Questions one under another, half ones side by side, each block under its title. */
  function lines(questions, blocks, pointsOf, keep) {
    const out = [];
    let block = "";
    for (const q of questions) {
      if ((q.block ?? "") !== block) {
        block = q.block ?? "";
        const b = blocks?.find((x) => x.name === block);
        if (b) out.push(h("header", { class: "sheet-block" }, h("h3", {}, b.title), b.intro && h("p", { class: "quiet" }, b.intro)));
      }
      out.push(question(q, pointsOf.get(keyOf(q)) ?? [], keyOf(q) === keep));
    }
    return h("div", { class: "sheet-lines" }, out);
  }

  /** The rows of a list; those of the last visit ask whether the thing is still there. */
  function rows(s, pointsOf, keep) {
    return [
      s.rows.map((r, i) => h("section", { class: "sheet-row", "data-row-id": r.id, "aria-label": `${s.title}, ${i + 1}` },
        h("header", {}, h("h3", {}, `${i + 1}`), h("span", { class: "quiet" }, r.state === "new" ? "" : r.state === "to confirm" ? "found by the last visit" : r.state),
          r.state === "new" ? h("button", { type: "button", class: "plain ml-auto", onclick: () => act.removeRow(r.id) }, "Remove")
            : h("span", { class: "ml-auto flex gap-1 flex-wrap" }, [ROW.STILL, ROW.MENDED, ROW.GONE].map((state) => h("button", { type: "button", class: "choice", "aria-pressed": String(r.state === state), onclick: () => act.markRow(r.id, state) }, state)))),
        r.state === ROW.MENDED || r.state === ROW.GONE ? "" : lines(r.questions, s.blocks, pointsOf, keep))),
      h("p", { class: "q flex items-center gap-3" }, act.addRow && h("button", { type: "button", disabled: !s.list.canAdd, "data-add": s.name, onclick: () => act.addRow(s.name) }, s.rows.length ? "Another" : "Add one"),
        (pointsOf.get(keyOf({ name: s.name })) ?? []).map((p) => h("span", { class: "quiet" }, p.message)), s.rows.length === 0 && h("span", { class: "quiet" }, "none so far")),
    ];
  }

  function question(q, points, focused) {
    const key = keyOf(q);
    let d = drawn.get(key);
    const shape = JSON.stringify([q.type, q.codes, q.fixed, q.unit, q.as]);
    if (!d || d.shape !== shape) {
      d = { shape, box: h("div", { class: q.half ? "q half" : "q", "data-question": q.name, "data-row": q.row }), head: h("div"), answer: h("div", { class: "q-answer" }), below: h("div") };
      d.box.append(d.head, d.answer, d.below);
      drawn.set(key, d);
    }
    const id = "q-" + (q.row ? q.row + "-" : "") + q.name;
    d.head.replaceChildren(
      h("div", { class: "q-head" }, h("label", { class: "q-label", for: id, id: id + "-label" }, q.label), h("span", { class: "q-need" }, NEED[q.need])),
      ...(q.hint ? [h("p", { class: "q-hint" }, q.hint)] : []));
    const value = JSON.stringify(q.value);
    const typing = focused && d.answer.contains(document.activeElement) && document.activeElement.matches("input, textarea") && TYPED.includes(q.type);
    if (!typing && (d.value !== value || q.type === "photo" || !d.answer.hasChildNodes()))
      d.answer.replaceChildren(...answerNodes(q, id, { set: (v) => act.set(q.name, v, q.row), focus: (el) => (d.focus = el), act }));
    d.value = value;
    d.below.replaceChildren(...below(q, points));
    return d.box;
  }

  function below(q, points) {
    const out = [];
    const from = q.from && q.from !== "typed" ? h("span", {}, q.from + (q.confirmed && !q.fixed ? ", confirmed" : "")) : null;
    const same = from && !q.confirmed && !q.fixed && h("button", { type: "button", class: "plain", "data-same": q.name, onclick: () => act.confirm(q.name, q.row) }, "Same");
    const away = TAPPED.includes(q.type) && !q.fixed && q.value !== null && q.value.length !== 0 && h("button", { type: "button", class: "plain", "data-take-away": q.name, onclick: () => takeAway(q) }, "Take the answer away");
    if (from || away) out.push(h("p", { class: "q-from" }, from, same, away));
    if (taken?.key === keyOf(q)) out.push(h("p", { class: "q-from", role: "status" }, h("span", {}, `“${taken.shown}” was taken away.`), h("button", { type: "button", class: "plain", "data-put-back": q.name, onclick: () => act.putBack() }, "Put it back")));
    if (q.was) out.push(h("p", { class: "q-from" }, "was ", h("span", { class: "q-was" }, q.was)));
    if (q.offer) out.push(h("p", { class: "q-from" }, h("span", {}, `${q.offer.from} now: ${q.offer.shown}`), act.takeOffer && h("button", { type: "button", class: "plain", onclick: () => act.takeOffer(q.name, q.row) }, "Use the new one")));
    if (q.note) out.push(h("p", { class: "q-from" }, q.note));
    for (const p of points) {
      if (p.kind === "wanted" || p.kind === "needed") continue;
      out.push(h("p", { class: "point " + p.kind, role: p.kind === "firm" ? "alert" : undefined }, pointMark(p.kind), h("span", {}, p.message), p.kind === "soft" && h("button", { type: "button", class: "plain", onclick: () => act.confirmSoft(p.key) }, "It is so")));
    }
    return out;
  }

  function goTo(name, row) {
    const box = drawn.get(keyOf({ name, row }))?.box ?? (row ? root.querySelector(`[data-row-id="${CSS.escape(row)}"]`) : root.querySelector(`[data-add="${CSS.escape(name)}"]`)?.parentElement);
    if (!box || !document.contains(box)) return;
    box.scrollIntoView({ block: "center" });
    (box.querySelector("input:not(.sr-only), textarea, select, button.choice, input, button") ?? box).focus({ preventScroll: true });
  }

  return { draw, goTo };
}

/** A question is known by its name, in a list together with its row. */
const keyOf = (q) => (q.row ? q.row + "/" : "") + q.name;

function group(points) {
  const m = new Map();
  for (const p of points) {
    const key = keyOf({ name: p.question, row: p.row });
    m.set(key, [...(m.get(key) ?? []), p]);
  }
  return m;
}

/** What a sheet does to an open visit of the engine; `change` wraps each deed. A row's id is made here. */
export function answering(visit, change) {
  return {
    set: (name, v, row = "") => change(() => visit.setIn(name, row, JSON.stringify(v))),
    tap: (name, code, row = "") => change(() => visit.tap(name, row, code)),
    putBack: () => change(() => visit.undo()),
    confirm: (name, row = "") => change(() => visit.confirmIn(name, row)),
    takeOffer: (name, row = "") => change(() => visit.takeOffer(name, row)),
    confirmSection: (i) => change(() => visit.confirmSection(i)),
    confirmSoft: (key) => change(() => visit.confirmSoft(key)),
    addRow: (list) => change(() => visit.addRow(list, crypto.randomUUID())),
    removeRow: (row) => change(() => visit.removeRow(row)),
    markRow: (row, state) => change(() => visit.markRow(row, state)),
  };
}

/** The mark of an open point: a gap for what is missing, a notch for a firm check, a ripple for a soft one. */
export function pointMark(kind) {
  const d = { firm: "M1 5h6l3 8 3-8h10", soft: "M1 8c2-4 4-4 6 0s4 4 6 0 4-4 6 0 3 3 4 0", needed: "M1 8h6M17 8h6", wanted: "M1 8h6M17 8h6" }[kind];
  return svg("svg", { viewBox: "0 0 24 16", width: "24", height: "16", class: "symbol", "aria-hidden": "true" }, svg("path", { d, fill: "none", stroke: kind === "firm" ? "#94451f" : "currentColor", "stroke-width": kind === "wanted" ? 1.2 : 2.2 }));
}

/** The trail over a sheet: one stretch for each question, broken, notched or rippled where something is open. */
export function trail(view) {
  const questions = view.sections.flatMap((s) => [...s.questions, ...(s.rows ?? []).filter((r) => ![ROW.MENDED, ROW.GONE].includes(r.state)).flatMap((r) => r.questions)]).filter((q) => q.type !== "read" && q.type !== "picture");
  const worst = new Map();
  const rank = { firm: 3, needed: 2, soft: 1, wanted: 0 };
  for (const p of view.points) {
    const key = keyOf({ name: p.question, row: p.row });
    if (!worst.has(key) || rank[p.kind] > rank[worst.get(key)]) worst.set(key, p.kind);
  }
  const w = 14;
  let d = "M0 8";
  questions.forEach((q, i) => {
    const x = i * w;
    const kind = worst.get(keyOf(q));
    if (kind === "firm") d += `h3l4 7 4-7h3`;
    else if (kind === "soft") d += `q3.5-9 7 0t7 0`;
    else if (kind === "needed" || kind === "wanted") d += `h2M${x + w - 2} 8h2`;
    else d += `h${w}`;
  });
  return svg("svg", { viewBox: `-1 0 ${questions.length * w + 2} 16`, preserveAspectRatio: "none", "aria-hidden": "true" }, svg("path", { d, fill: "none", stroke: "currentColor", "stroke-width": 2.2, "vector-effect": "non-scaling-stroke" }));
}

/** What is open in words: "1 to mend, 2 to fill". */
export function openWords(points) {
  const n = (kind) => points.filter((p) => p.kind === kind).length;
  const parts = [];
  if (n("firm")) parts.push(`${n("firm")} to mend`);
  if (n("needed")) parts.push(`${n("needed")} to fill`);
  if (n("soft")) parts.push(`${n("soft")} to look at`);
  if (n("wanted")) parts.push(`${n("wanted")} wanted`);
  return parts.length ? parts.join(", ") : "nothing open";
}
