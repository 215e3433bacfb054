// Draws a sheet from the engine's view. One module for the desk and the day book. It decides nothing: what is asked, wrong or
// missing comes in with the view; what people do goes out through `act`.
import { h, svg } from "./dom.js";

const NEED = { needed: "needed", wanted: "wanted", free: "" };

/**
 * A sheet in an element.
 * act: { set(name, value), confirm(name), confirmSection(index), confirmSoft(key), addPhoto(name, file), removePhoto(name, id), photo(id) → {url, note} }
 */
export function makeSheet(root, act) {
  const drawn = new Map();
  root.classList.add("sheet");

  function draw(view, { page } = {}) {
    const pointsOf = Map.groupBy ? Map.groupBy(view.points, (p) => p.question) : group(view.points);
    const sections = view.sections.filter((s) => (page === undefined || s.page === page) && s.questions.length > 0);
    const keep = document.activeElement?.closest?.("[data-question]")?.dataset.question;
    const nodes = sections.map((s) => section(s, pointsOf, keep));
    root.replaceChildren(...nodes);
    if (keep) refocus(keep);
  }

  function refocus(name) {
    const q = drawn.get(name);
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
      s.questions.map((q) => question(q, pointsOf.get(q.name) ?? [], q.name === keep)));
  }

  function question(q, points, focused) {
    let d = drawn.get(q.name);
    const shape = JSON.stringify([q.type, q.codes, q.fixed, q.unit]);
    if (!d || d.shape !== shape) {
      d = { shape, box: h("div", { class: "q", "data-question": q.name }), head: h("div"), answer: h("div", { class: "q-answer" }), below: h("div") };
      d.box.append(d.head, d.answer, d.below);
      drawn.set(q.name, d);
    }
    const id = "q-" + q.name;
    d.head.replaceChildren(
      h("div", { class: "q-head" }, h("label", { class: "q-label", for: id, id: id + "-label" }, q.label), h("span", { class: "q-need" }, NEED[q.need])),
      ...(q.hint ? [h("p", { class: "q-hint" }, q.hint)] : []));
    const value = JSON.stringify(q.value);
    const typing = focused && d.answer.contains(document.activeElement) && ["text", "long_text", "whole", "decimal"].includes(q.type);
    if (!typing && (d.value !== value || q.type === "photo" || !d.answer.hasChildNodes())) {
      d.answer.replaceChildren(...answer(q, id, d));
    }
    d.value = value;
    d.below.replaceChildren(...below(q, points));
    return d.box;
  }

  function answer(q, id, d) {
    const unit = q.unit ? [h("span", { class: "q-unit" }, q.unit)] : [];
    if (q.type === "read") return [];
    if (q.type === "photo") return photos(q, id);
    if (q.fixed) return [h("output", { class: "q-fixed", id }, q.shown || "—")];
    const set = (v) => act.set(q.name, v);
    switch (q.type) {
      case "yes_no":
        return [choices(q, id, [["true", "Yes"], ["false", "No"]], (c) => String(q.value) === c, (c, on) => set(on ? null : c === "true"))];
      case "choice":
        if (q.codes.length > 8) return [d.focus = select(q, id, set)];
        return [choices(q, id, q.codes.map((c) => [c.code, c.label]), (c) => String(q.value) === c, (c, on) => set(on ? null : c))];
      case "choices": {
        const chosen = Array.isArray(q.value) ? q.value : [];
        return [choices(q, id, q.codes.map((c) => [c.code, c.label]), (c) => chosen.includes(c), (c, on) => set(on ? chosen.filter((x) => x !== c) : [...chosen, c]))];
      }
      case "long_text":
        return [d.focus = h("textarea", { id, rows: "3", oninput: (e) => set(e.target.value) }, q.value ?? "")];
      case "date":
        return [d.focus = h("input", { id, type: "date", value: q.value ?? "", onchange: (e) => set(e.target.value || null) }), misfit(q)];
      case "whole":
      case "decimal":
        return [d.focus = h("input", { id, type: "text", class: "number", inputmode: q.type === "whole" ? "numeric" : "decimal", autocomplete: "off", value: q.value === null ? "" : String(q.value), oninput: (e) => set(e.target.value.trim().replace(",", ".") || null) }), ...unit];
      default:
        return [d.focus = h("input", { id, type: "text", autocomplete: "off", value: q.value === null ? "" : String(q.value), oninput: (e) => set(e.target.value || null) }), ...unit];
    }
  }

  /** A date field can't show text that is no date; the text stands beside it instead of vanishing. */
  function misfit(q) {
    return q.value && !/^\d{4}-\d{2}-\d{2}$/.test(q.value) ? h("span", { class: "code" }, q.shown) : "";
  }

  function choices(q, id, all, isOn, toggle) {
    return h("div", { class: "choices", role: "group", "aria-labelledby": id + "-label", id },
      all.map(([code, label]) => h("button", { type: "button", class: "choice", "data-code": code, "aria-pressed": String(isOn(code)), onclick: () => toggle(code, isOn(code)) }, label)));
  }

  function select(q, id, set) {
    return h("select", { id, onchange: (e) => set(e.target.value || null) }, h("option", { value: "" }, "—"), q.codes.map((c) => h("option", { value: c.code, selected: String(q.value) === c.code }, c.label)));
  }

  function photos(q, id) {
    const ids = Array.isArray(q.value) ? q.value : [];
    const more = !q.most || ids.length < q.most;
    const input = h("input", { type: "file", id, accept: "image/*", capture: "environment", class: "sr-only", disabled: !act.addPhoto, onchange: (e) => e.target.files[0] && act.addPhoto(q.name, e.target.files[0]) });
    return [
      more && act.addPhoto ? h("div", {}, input, h("label", { for: id, class: "button" }, ids.length ? "Another photo" : "Take a photo")) : more ? h("span", { class: "quiet" }, "photos are taken in the day book") : "",
      h("div", { class: "shots" }, ids.map((p) => {
        const known = act.photo?.(p) ?? {};
        return h("figure", { "data-photo": p }, known.url ? h("img", { src: known.url, alt: "photo of " + q.label }) : "", h("figcaption", {}, known.note ?? "", " ", act.removePhoto ? h("button", { type: "button", class: "plain", onclick: () => act.removePhoto(q.name, p) }, "Remove") : ""));
      })),
    ];
  }

  function below(q, points) {
    const out = [];
    if (q.from && q.from !== "typed") {
      const open = !q.confirmed && !q.fixed;
      out.push(h("p", { class: "q-from" }, h("span", {}, q.from + (q.confirmed && !q.fixed ? ", confirmed" : "")), open && h("button", { type: "button", class: "plain", "data-same": q.name, onclick: () => act.confirm(q.name) }, "Same")));
    }
    if (q.was) out.push(h("p", { class: "q-from" }, "was ", h("span", { class: "q-was" }, q.was)));
    if (q.note) out.push(h("p", { class: "q-from" }, q.note));
    for (const p of points) {
      if (p.kind === "wanted" || p.kind === "needed") continue;
      out.push(h("p", { class: "point " + p.kind, role: p.kind === "firm" ? "alert" : undefined }, pointMark(p.kind), h("span", {}, p.message), p.kind === "soft" && h("button", { type: "button", class: "plain", onclick: () => act.confirmSoft(p.key) }, "It is so")));
    }
    return out;
  }

  function goTo(name) {
    const box = drawn.get(name)?.box;
    if (!box || !document.contains(box)) return;
    box.scrollIntoView({ block: "center" });
    (box.querySelector("input:not(.sr-only), textarea, select, button.choice, input") ?? box).focus({ preventScroll: true });
  }

  return { draw, goTo };
}

function group(points) {
  const m = new Map();
  for (const p of points) m.set(p.question, [...(m.get(p.question) ?? []), p]);
  return m;
}

/** The mark of an open point: a gap for what is missing, a notch for a firm check, a ripple for a soft one. */
export function pointMark(kind) {
  const d = { firm: "M1 5h6l3 8 3-8h10", soft: "M1 8c2-4 4-4 6 0s4 4 6 0 4-4 6 0 3 3 4 0", needed: "M1 8h6M17 8h6", wanted: "M1 8h6M17 8h6" }[kind];
  return svg("svg", { viewBox: "0 0 24 16", width: "24", height: "16", class: "symbol", "aria-hidden": "true" }, svg("path", { d, fill: "none", stroke: kind === "firm" ? "#94451f" : "currentColor", "stroke-width": kind === "wanted" ? 1.2 : 2.2 }));
}

/** The trail over a sheet: one stretch for each question, broken, notched or rippled where something is open. */
export function trail(view) {
  const questions = view.sections.flatMap((s) => s.questions).filter((q) => q.type !== "read");
  const worst = new Map();
  const rank = { firm: 3, needed: 2, soft: 1, wanted: 0 };
  for (const p of view.points) if (!worst.has(p.question) || rank[p.kind] > rank[worst.get(p.question)]) worst.set(p.question, p.kind);
  const w = 14;
  let d = "M0 8";
  questions.forEach((q, i) => {
    const x = i * w;
    const kind = worst.get(q.name);
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
