// One symbol of a stack, with what can be changed about it.
import { h } from "./dom.js";
import { url } from "./look.js";

const DASHES = [["solid", "solid"], ["dashed", "dashed"], ["dotted", "dotted"], ["dash-dot", "dash and dot"]];
const HATCHES = [["none", "none"], ["rising", "rising lines"], ["falling", "falling lines"], ["crossed", "crossed lines"], ["level", "level lines"], ["dots", "dots"], ["reeds", "reeds"], ["waves", "waves"]];
const numeric = (f) => f.type === "whole" || f.type === "decimal";

/** A symbol to begin with. */
export function usualSymbol(kind, draw = kind === "line" ? "line" : kind === "polygon" ? "area" : "mark") {
  if (draw === "line") return { draw, colour: "#3c4f5a", width: 2, dash: "solid", ticks: false, opacity: 1 };
  if (draw === "area") return { draw, colour: "#8fb58a", opacity: 0.5, hatch: "none", hatchColour: "#3c4f5a", hatchWidth: 1.2 };
  return { draw, icon: "disc", colour: "#3c4f5a", size: 12, outline: "#fbf9f3", outlineWidth: 1.2, turnBy: "", opacity: 1 };
}

const select = (label, value, options, onchange, extra = {}) => h("label", {}, label, h("select", { ...extra, onchange: (e) => onchange(e.target.value) }, options.map(([v, l]) => h("option", { value: v, selected: v === value }, l))));

/**
 * A row for a symbol. `to.set(how, again)` changes it, `again` when the row itself must change; `to.away()` takes it off the stack, `to.up()` puts it one higher.
 */
export function symbolRow(s, { kind, fields, icons, last }, to) {
  const colour = (label, name, empty) => h("label", {}, label,
    empty && h("input", { type: "checkbox", "aria-label": `${label}: with`, checked: s[name] !== "", onchange: (e) => to.set((x) => (x[name] = e.target.checked ? "#1f2a30" : ""), true) }),
    (!empty || s[name] !== "") && h("input", { type: "color", value: s[name] || "#1f2a30", onchange: (e) => to.set((x) => (x[name] = e.target.value), false) }));
  const px = (label, name, most, step = "0.5") => h("label", {}, label, h("input", { type: "number", min: "0", max: String(most), step, value: String(s[name]), onchange: (e) => to.set((x) => (x[name] = Number(e.target.value)), false) }), "px");
  const opacity = () => h("label", {}, "Opacity", h("input", { type: "range", min: "0", max: "1", step: "0.05", class: "w-[5rem]", value: String(s.opacity), onchange: (e) => to.set((x) => (x.opacity = Number(e.target.value)), false) }));
  const numbers = fields.filter(numeric).map((f) => [f.name, f.label]);
  const size = (label, name, most) => {
    const v = s[name];
    const by = typeof v === "object";
    const one = (what, text) => h("label", {}, text, h("input", { type: "number", step: "any", value: String(v[what]), onchange: (e) => to.set((x) => (x[name][what] = Number(e.target.value)), false) }));
    return [
      h("label", {}, label, h("input", { type: "number", min: "0", max: String(most), step: "0.5", value: String(by ? v.px : v), onchange: (e) => to.set((x) => (by ? (x[name].px = Number(e.target.value)) : (x[name] = Number(e.target.value))), false) }), "px"),
      select("by", by ? v.field : "", [["", "the same for all"], ...numbers], (f) => to.set((x) => (x[name] = f ? { px: by ? v.px : v, field: f, from: by ? v.from : 0, to: by ? v.to : 100, small: by ? v.small : most > 20 ? 8 : 1, large: by ? v.large : most > 20 ? 28 : 8 } : by ? v.px : v), true), { "data-size-by": name }),
      by && [one("from", "from"), one("small", "is"), one("to", "px, to"), one("large", "is"), "px"],
    ];
  };
  const title = { mark: "Icon", line: "Line", area: "Fill" }[s.draw];
  const knobs =
    s.draw === "mark"
      ? [
          h("div", { class: "icon-grid", role: "group", "aria-label": "Icon" }, icons.map((i) => h("button", { type: "button", title: i.label, "data-icon": i.id, "aria-label": i.label, "aria-pressed": String(i.id === s.icon), onclick: () => to.set((x) => (x.icon = i.id), true) }, h("img", { src: url(i.svg), alt: "" })))),
          h("div", { class: "knobs" }, colour("Colour", "colour"), size("Size", "size", 96), colour("Outline", "outline", true), px("", "outlineWidth", 12), select("Turned by", s.turnBy, [["", "nothing: upright"], ...numbers], (f) => to.set((x) => (x.turnBy = f), false), { "data-turn": "" }), opacity()),
        ]
      : s.draw === "line"
        ? [h("div", { class: "knobs" }, colour("Colour", "colour"), size("Width", "width", 20), select("Line", s.dash, DASHES, (d) => to.set((x) => (x.dash = d), false)), kind === "line" && h("label", {}, h("input", { type: "checkbox", checked: s.ticks, onchange: (e) => to.set((x) => (x.ticks = e.target.checked), false) }), "show its direction"), opacity())]
        : [h("div", { class: "knobs" }, colour("Colour", "colour", true), opacity(), select("Hatch", s.hatch, HATCHES, (v) => to.set((x) => (x.hatch = v), true)), s.hatch !== "none" && colour("its colour", "hatchColour"), s.hatch !== "none" && px("width", "hatchWidth", 4, "0.2"))];
  return h("div", { class: "symbol-row", "data-symbol": s.draw },
    h("div", { class: "flex gap-2 items-baseline justify-between" }, h("strong", {}, title), h("span", {}, !last && h("button", { type: "button", class: "plain", onclick: to.up }, "Raise"), h("button", { type: "button", class: "plain", onclick: to.away }, "Remove"))),
    knobs);
}
