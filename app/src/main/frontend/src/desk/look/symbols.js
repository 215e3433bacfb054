// One symbol of a stack, with what can be changed about it.
import { url } from "../../map/look.js";
import { check, choose, numberBox } from "../../shell/controls.js";
import { say } from "../../shell/say.js";
import { typed } from "../../shell/typed.js";
import { html, nothing } from "../../shell/view.js";

const INK = "#1f2a30";
/** @type {[string, import("../../shell/say.js").MessageKey][]} */
const DASHES = [
  ["solid", "desk.dash.solid"],
  ["dashed", "desk.dash.dashed"],
  ["dotted", "desk.dash.dotted"],
  ["dash-dot", "desk.dash.dashDot"],
];
/** @type {[string, import("../../shell/say.js").MessageKey][]} */
const HATCHES = [
  ["none", "desk.hatch.none"],
  ["rising", "desk.hatch.rising"],
  ["falling", "desk.hatch.falling"],
  ["crossed", "desk.hatch.crossed"],
  ["level", "desk.hatch.level"],
  ["dots", "desk.hatch.dots"],
  ["reeds", "desk.hatch.reeds"],
  ["waves", "desk.hatch.waves"],
];
/** @type {Record<string, import("../../shell/say.js").MessageKey>} */
const TITLE = { mark: "desk.symbol.mark", line: "desk.symbol.line", area: "desk.symbol.area" };
/** @param {[string, import("../../shell/say.js").MessageKey][]} all @returns {[string, string][]} */
const said = (all) => all.map(([id, key]) => [id, say(key)]);

/** A symbol to begin with. */
export function usualSymbol(kind, draw = kind === "line" ? "line" : kind === "polygon" ? "area" : "mark") {
  if (draw === "line") return { draw, colour: "#3c4f5a", width: 2, dash: "solid", ticks: false, opacity: 1 };
  if (draw === "area") return { draw, colour: "#8fb58a", opacity: 0.5, hatch: "none", hatchColour: "#3c4f5a", hatchWidth: 1.2 };
  return { draw, icon: "disc", colour: "#3c4f5a", size: 12, outline: "#fbf9f3", outlineWidth: 1.2, turnBy: "", opacity: 1 };
}

/**
 * A row for a symbol. `to.set(how)` changes it; `to.away()` takes it off the stack, `to.up()` puts it one higher.
 * @param {any} s
 * @param {{kind: string, numbers: [string, string][], icons: any[], last: boolean}} about
 * @param {{set: (how: (s: any) => void) => void, away: () => void, up: () => void}} to
 */
export function symbolRow(s, { kind, numbers, icons, last }, to) {
  const raise = html`<button type="button" class="plain" @click=${to.up}>${say("desk.symbol.raise")}</button>`;
  return html`<div class="symbol-row" data-symbol=${s.draw}>
    <div class="flex gap-2 items-baseline justify-between">
      <strong>${say(TITLE[s.draw])}</strong
      ><span>${last ? nothing : raise}<button type="button" class="plain" @click=${to.away}>${say("do.remove")}</button></span>
    </div>
    ${{ mark: markKnobs, line: lineKnobs, area: areaKnobs }[s.draw](s, to, { kind, numbers, icons })}
  </div>`;
}

function markKnobs(s, to, { numbers, icons }) {
  const upright = /** @type {[string, string]} */ (["", say("desk.symbol.upright")]);
  return html`<div class="icon-grid" role="group" aria-label=${say("desk.symbol.mark")}>${icons.map((i) => iconButton(i, s, to))}</div>
    <div class="knobs">
      ${colour(s, to, say("desk.symbol.colour"), "colour")}${size(s, to, say("desk.symbol.size"), "size", 96, numbers)}
      ${colour(s, to, say("desk.symbol.outline"), "outline", true)}${px(s, to, "", "outlineWidth", 12)}
      ${choose(say("desk.symbol.turnedBy"), s.turnBy, [upright, ...numbers], (f) => to.set((x) => (x.turnBy = f)), { mark: "turn" })}
      ${opacity(s, to)}
    </div>`;
}

function lineKnobs(s, to, { kind, numbers }) {
  const direction = html`<label>${check(say("desk.symbol.direction"), s.ticks, (on) => to.set((x) => (x.ticks = on)))}</label>`;
  return html`<div class="knobs">
    ${colour(s, to, say("desk.symbol.colour"), "colour")}${size(s, to, say("desk.symbol.width"), "width", 20, numbers)}
    ${choose(say("desk.symbol.line"), s.dash, said(DASHES), (d) => to.set((x) => (x.dash = d)))}${kind === "line" ? direction : nothing}
    ${opacity(s, to)}
  </div>`;
}

function areaKnobs(s, to) {
  const hatch = [colour(s, to, say("desk.symbol.itsColour"), "hatchColour"), px(s, to, say("desk.symbol.itsWidth"), "hatchWidth", 4, 0.2)];
  return html`<div class="knobs">
    ${colour(s, to, say("desk.symbol.colour"), "colour", true)}${opacity(s, to)}
    ${choose(say("desk.symbol.hatch"), s.hatch, said(HATCHES), (v) => to.set((x) => (x.hatch = v)))}${s.hatch === "none" ? nothing : hatch}
  </div>`;
}

function iconButton(i, s, to) {
  return html`<button
    type="button"
    title=${i.label}
    data-icon=${i.id}
    aria-label=${i.label}
    aria-pressed=${String(i.id === s.icon)}
    @click=${() => to.set((x) => (x.icon = i.id))}
  >
    <img src=${url(i.svg)} alt="" />
  </button>`;
}

/** A colour; one that may be missing has a tick before it. */
function colour(s, to, label, name, mayBeNone = false) {
  const tick = mayBeNone
    ? check("", s[name] !== "", (on) => to.set((x) => (x[name] = on ? INK : "")), { said: say("desk.symbol.with", { what: label }) })
    : nothing;
  const box = html`<input
    type="color"
    .value=${typed(s[name] || INK)}
    aria-label=${label}
    @change=${(e) => to.set((x) => (x[name] = e.target.value))}
  />`;
  return html`<label>${label}${tick}${mayBeNone && s[name] === "" ? nothing : box}</label>`;
}

function px(s, to, label, name, max, step = 0.5) {
  const box = numberBox(s[name], (n) => to.set((x) => (x[name] = n)), {
    min: 0,
    max,
    step,
    said: label ? undefined : say("desk.symbol.outlineWidth"),
  });
  return html`<label>${label}${box}px</label>`;
}

function opacity(s, to) {
  return html`<label
    >${say("map.opacity")}<input
      type="range"
      min="0"
      max="1"
      step="0.05"
      class="w-[5rem]"
      .value=${typed(String(s.opacity))}
      @change=${(e) => to.set((x) => (x.opacity = Number(e.target.value)))}
  /></label>`;
}

/** A size by a field to begin with: from the small to the large one between two values. */
function sizeBy(field, v, most) {
  const usual = most > 20 ? { small: 8, large: 28 } : { small: 1, large: 8 };
  return typeof v === "object" ? { ...v, field } : { px: v, field, from: 0, to: 100, ...usual };
}

/** A size in pixels, the same for all or by a field of numbers. */
function size(s, to, label, name, max, numbers) {
  const v = s[name];
  const by = typeof v === "object";
  const set = (n) => to.set((x) => (by ? (x[name].px = n) : (x[name] = n)));
  const one = (what, text) => html`<label>${text}${numberBox(v[what], (n) => to.set((x) => (x[name][what] = n)), { step: "any" })}</label>`;
  const ends = () => [
    one("from", say("desk.symbol.from")),
    one("small", say("desk.symbol.is")),
    one("to", say("desk.symbol.pxTo")),
    one("large", say("desk.symbol.is")),
    "px",
  ];
  const field = choose(
    say("desk.symbol.by"),
    by ? v.field : "",
    [["", say("desk.symbol.sameForAll")], ...numbers],
    (f) => to.set((x) => (x[name] = f ? sizeBy(f, v, max) : by ? v.px : v)),
    { mark: "size-by-" + name },
  );
  return html`<label>${label}${numberBox(by ? v.px : v, set, { min: 0, max, step: 0.5 })}px</label>${field}${by ? ends() : nothing}`;
}
