// What stands beside the map while somebody draws.
import { url } from "../../map/look.js";
import { entrySaid } from "../../map/legend.js";
import { check } from "../../shell/controls.js";
import { areaSaid, lengthSaid } from "../../shell/format.js";
import { say } from "../../shell/say.js";
import { html, nothing } from "../../shell/view.js";
import { valuesForm } from "./values-form.js";

/** @type {Record<string, import("../../shell/say.js").MessageKey>} */
const HINTS = {
  choose: "desk.hint.choose",
  reshape: "desk.hint.reshape",
  move: "desk.hint.move",
  part: "desk.hint.part",
  hole: "desk.hint.hole",
  split: "desk.hint.split",
  less: "desk.hint.less",
  fill: "desk.hint.fill",
};

/** @param {any} state */
export function side(state) {
  const { failure, kind, current, mode, tools, onMap, snapping } = state;
  const placing = tools.draw || (current && kind === "point");
  const hint = mode === "draw" ? (kind === "point" ? "desk.hint.point" : "desk.hint.draw") : HINTS[mode];
  const snap = (on) => {
    state.snapping = on;
    state.use(mode);
  };
  return html`${failure ? html`<p class="problem" role="alert">${failure}</p>` : nothing}
    <p class="mb-2" id="draw-hint">${say(hint)}</p>
    ${placing ? typedCard(state) : nothing} ${current ? chosenCard(state) : nothing} ${makeCard(state)}
    ${tools.draw || current ? nothing : typedCard(state)}
    <label class="flex gap-2 items-center">${check(say("desk.draw.snap"), snapping, snap, { id: "snapping" })}</label>
    ${onMap.state.drawn ? nothing : html`<p class="told mt-2">${say("desk.draw.zoomIn")}</p>`}`;
}

/** How large what is drawn is, and what is wrong with it. */
export function measured({ measured: m, kind }) {
  if (!m) return nothing;
  const said =
    kind === "line"
      ? say("desk.draw.length", { length: lengthSaid(m.lengthM) })
      : say("desk.draw.area", { area: areaSaid(m.areaM2), edge: lengthSaid(m.lengthM) });
  return html`${said}${m.fault ? html`<strong> · ${m.fault}</strong>` : nothing}`;
}

/** A position that is typed; it stands on top while there is something to put there. */
function typedCard(state) {
  const { kind, current, tools, system } = state;
  const put = (e) => {
    e.preventDefault();
    const box = e.target.querySelector("#typed");
    if (state.typed(box.value)) box.value = "";
    document.getElementById("typed")?.focus();
  };
  const nowhere = !tools.draw && !(current && kind === "point");
  return html`<form class="card mb-3" @submit=${put}>
    <label class="label" for="typed">${say("desk.draw.typed")}</label>
    <div class="flex gap-2">
      <input class="flex-1 min-w-0 code" id="typed" placeholder="57.9012, -10.2034" autocomplete="off" />
      <button type="submit" ?disabled=${nowhere}>${say("desk.draw.putThere")}</button>
    </div>
    <p class="quiet text-sm mt-1">${say("desk.draw.typedHow", { system })}</p>
  </form>`;
}

function chosenCard(state) {
  const { current, edits } = state;
  const removed = edits.get(current.id)?.removed;
  return html`<div class="card mb-3" id="chosen">
    <div class="flex justify-between gap-2">
      <h2>${current.caption}</h2>
      <button type="button" class="plain" @click=${() => state.leave()}>${say("desk.draw.done")}</button>
    </div>
    ${removed ? html`<p>${say("desk.draw.willGo")}</p>` : [toolsOf(state), valuesOf(state)]}
  </div>`;
}

function toolsOf(state) {
  const { kind, mode } = state;
  const tool = (id, label) =>
    html`<button type="button" data-tool=${id} aria-pressed=${String(mode === id)} @click=${() => state.use(id)}>${label}</button>`;
  const more = [
    tool("move", say("desk.tool.move")),
    kind === "line" ? tool("split", say("desk.tool.split")) : nothing,
    tool("part", say("desk.tool.part")),
    tool("less", say("desk.tool.less")),
    kind === "polygon" ? [tool("hole", say("desk.tool.hole")), tool("fill", say("desk.tool.fill"))] : nothing,
  ];
  return html`<div class="knobs mt-2">
    ${tool("reshape", kind === "point" ? say("desk.tool.byHand") : say("desk.tool.reshape"))}${kind === "point" ? nothing : more}
    <button type="button" data-tool="remove" @click=${() => state.remove()}>${say("desk.tool.remove")}</button>
  </div>`;
}

function valuesOf(state) {
  const { current, edits, schema } = state;
  const e = edits.of(current);
  return valuesForm({
    id: e.id,
    schema,
    typed: e.typed,
    stood: e.stood ?? {},
    isNew: e.isNew && !e.like,
    faults: edits.faults[e.id] ?? {},
    changed: (name, typed, again) => state.value(current, name, typed, again),
  });
}

function makeCard(state) {
  const { plan } = state.onMap;
  const one = (e, i) => {
    const named = entrySaid(plan, i, "");
    const said = named || say("desk.draw.newFeature");
    const make = () => state.make({ i, said, named: Boolean(named), preset: e.preset ?? {} });
    const on = state.mode === "draw" && state.making?.i === i;
    return html`<li>
      <button type="button" class="plain w-full justify-start" data-make=${i} aria-pressed=${String(on)} @click=${make}>
        <img src=${url(e.symbol)} alt="" />${said}
      </button>
    </li>`;
  };
  return html`<div class="card mb-3">
    <h2>${say("desk.draw.make")}</h2>
    <ul class="legend mt-1" id="make-from">
      ${plan.entries.map(one)}
    </ul>
  </div>`;
}
