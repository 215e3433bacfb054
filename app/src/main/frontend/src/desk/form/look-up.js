// A look-up by place: in which layer, how, how far, which features, and what is taken of what is found.
import { options } from "../../shell/controls.js";
import { say } from "../../shell/say.js";
import { html, nothing } from "../../shell/view.js";

/** @type {Record<string, [string, import("../../shell/say.js").MessageKey][]>} */
const HOW = {
  polygon: [
    ["containing", "desk.look.containing"],
    ["nearest", "desk.look.nearest"],
    ["around", "desk.look.around"],
  ],
  line: [
    ["nearest", "desk.look.nearest"],
    ["along", "desk.look.along"],
    ["around", "desk.look.around"],
  ],
  point: [
    ["nearest", "desk.look.nearest"],
    ["around", "desk.look.around"],
  ],
};
/** What can be taken, and whether it reads a field. @type {[string, import("../../shell/say.js").MessageKey, boolean, string[]][]} */
const TAKE = [
  ["value", "desk.look.value", true, []],
  ["distance", "desk.look.distance", false, ["nearest", "along"]],
  ["chainage", "desk.look.chainage", false, ["along"]],
  ["offset", "desk.look.offset", false, ["along"]],
  ["side", "desk.look.side", false, ["along"]],
  ["count", "desk.look.count", false, ["around"]],
  ["sum", "desk.look.sum", true, ["around"]],
  ["mean", "desk.look.mean", true, ["around"]],
  ["min", "desk.look.min", true, ["around"]],
  ["max", "desk.look.max", true, ["around"]],
  ["most frequent", "desk.look.mostFrequent", true, ["around"]],
  ["list", "desk.look.list", true, ["around", "containing"]],
  ["feature", "desk.look.feature", false, ["containing", "nearest", "along"]],
];

/** The layer that a source looks into, and how, be it its own look-up or one that is shared. */
function lookOf(state, s) {
  const l = s.lookUp ? { ...state.form.lookUps?.[s.lookUp] } : s;
  return { ...l, how: l.how ?? "containing" };
}

/** What is said of the look-up itself, without what is taken from it. */
export function ofLookUp({ layer, layerName, how, withinM, filter, several }) {
  const all = { layer, layerName, how, withinM, filter, several };
  return Object.fromEntries(Object.entries(all).filter(([, v]) => v !== undefined && v !== "" && v !== 0));
}
/** What a source takes of what is found. */
export const taken = ({ field, take }) => ({ ...(field ? { field } : {}), ...(take ? { take } : {}) });

/** @param {any} state @param {any} s the source @param {(s: any) => void} put */
export function lookUp(state, s, put) {
  const l = lookOf(state, s);
  const layer = state.lookups.find((x) => x.id === l.layer);
  const shared = Object.keys(state.form.lookUps ?? {});
  const takes = TAKE.filter(([, , , how]) => how.length === 0 || how.includes(l.how));
  const take = s.take ?? "value";
  const field = takes.find((t) => t[0] === take)?.[2];
  // what is said of the look-up itself goes to all who share it
  const look = (more) => {
    const next = ofLookUp({ ...l, ...more });
    if (s.lookUp) return state.edit({ op: "lookUp.set", name: s.lookUp, lookUp: next });
    return put({ from: "place", ...next, ...taken(s) });
  };
  const into = (id) => {
    const to = state.lookups.find((x) => x.id === id);
    put({ from: "place", ...to.lookUp, field: to.schema.fields[0]?.name ?? "" });
  };
  const which = (e) => {
    const [kind, ...id] = e.target.value.split(":");
    if (kind === "shared") put({ from: "place", lookUp: id.join(":"), ...taken(s) });
    else into(id.join(":"));
  };
  const gone = !layer && l.layer;
  return html`<span class="look-up">
    <select aria-label=${say("desk.look.layer")} data-look="layer" @change=${which}>
      ${gone ? html`<option value="" .selected=${true}>${l.layerName}</option>` : nothing}
      ${state.lookups.map((x) => html`<option value=${"layer:" + x.id} .selected=${!s.lookUp && x.id === l.layer}>${x.name}</option>`)}
      ${
        shared.length
          ? html`<optgroup label=${say("desk.look.shared")}>
              ${shared.map((n) => html`<option value=${"shared:" + n} .selected=${s.lookUp === n}>${n}</option>`)}
            </optgroup>`
          : nothing
      }
    </select>
    ${layer ? settings(state, s, l, layer, { look, put, takes, take, field }) : nothing}
    ${
      state.lacksPosition
        ? html`<span class="told" data-needs-position
            >${say("desk.look.needsPosition")}
            <button type="button" class="plain" id="add-position" @click=${() => state.addPosition()}>
              ${say("desk.look.addPosition")}
            </button></span
          >`
        : nothing
    }
    ${layer ? html`<span class="quiet" data-look-pack>${say("desk.look.inPack", { n: layer.features, kb: layer.kilobytes })}</span>` : nothing}
  </span>`;
}

function settings(state, s, l, layer, { look, put, takes, take, field }) {
  const how = (HOW[layer.schema.kind] ?? HOW.point).map(([id, key]) => [id, say(key)]);
  const far = (e) => look({ withinM: Math.max(0, Number(e.target.value) || 0) });
  const fields = layer.schema.fields.map((f) => [f.name, f.label || f.name]);
  const other = (e) => {
    const name = e.target.value;
    e.target.value = "";
    if (name) state.takeToo(s, name);
  };
  const turn = (e) => look({ how: e.target.value, withinM: e.target.value === "containing" ? 0 : l.withinM || 50 });
  return html`<select aria-label=${say("desk.look.how")} data-look="how" @change=${turn}>
      ${options(/** @type {any} */ (how), l.how)}
    </select>
    ${
      l.how === "containing"
        ? nothing
        : html`<label
            >${say("desk.look.within")}
            <input type="number" min="0" max="50000" size="6" data-look="within" .value=${String(l.withinM ?? 0)} @change=${far} /> m</label
          >`
    }
    <select aria-label=${say("desk.look.take")} data-look="take" @change=${(e) => put({ ...s, take: e.target.value })}>
      ${options(
        takes.map(([id, key]) => [id, say(key)]),
        take,
      )}
    </select>
    ${
      field
        ? html`<select aria-label=${say("desk.look.field")} data-look="field" @change=${(e) => put({ ...s, field: e.target.value })}>
            ${options(/** @type {any} */ (fields), s.field ?? "")}
          </select>`
        : nothing
    }
    <label
      >${say("desk.look.only")}
      <input
        class="rule"
        data-look="filter"
        spellcheck="false"
        placeholder=${say("desk.look.onlyLike")}
        .value=${l.filter ?? ""}
        @change=${(e) => look({ filter: e.target.value.trim() })}
    /></label>
    <select aria-label=${say("desk.look.intoOthers")} data-look="also" @change=${other}>
      ${options([["", say("desk.look.intoOthers")], .../** @type {any} */ (fields.filter((f) => f[0] !== s.field))], "")}
    </select>
    ${s.lookUp ? nothing : html`<button type="button" class="plain" data-share @click=${() => state.share(s)}>${say("desk.look.share")}</button>`}`;
}
