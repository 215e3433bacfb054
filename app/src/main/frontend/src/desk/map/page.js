// The project's map: its layers from the top down, each with its legend, and what they lie on.
import { withBasemaps } from "../../map/basemaps.js";
import { legend } from "../../map/legend.js";
import * as maps from "../../map/map.js";
import { textBox } from "../../shell/controls.js";
import { say } from "../../shell/say.js";
import { getJson } from "../../shell/server.js";
import { symbol } from "../../shell/symbols.js";
import { drawn, html, live, nothing, repeat } from "../../shell/view.js";
import { basemapsCard } from "./basemaps-card.js";
import { ProjectMapState } from "./state.js";

function row(state, l, i) {
  const name = l.shortName || l.name;
  const { plan } = /** @type {any} */ (state.onMap.get(l.id) ?? {});
  const own = () =>
    textBox(l.shortName, (v) => state.call(l, v), {
      class: "flex-1 min-w-0",
      placeholder: l.name,
      said: say("desk.map.shortName", { layer: l.name }),
      maxlength: 40,
    });
  const drop = () => {
    if (state.dragged >= 0) state.move(state.dragged, i - state.dragged);
    state.dragged = -1;
  };
  return html`<li
    class="card py-2"
    data-layer=${l.id}
    draggable=${String(state.may)}
    @dragstart=${() => (state.dragged = i)}
    @dragover=${(e) => e.preventDefault()}
    @drop=${drop}
  >
    <div class="flex items-center gap-2">
      <input
        type="checkbox"
        .checked=${live(l.on)}
        aria-label=${say("desk.map.show", { layer: l.name })}
        @change=${(e) => state.turn(l, e.target.checked)}
      />
      ${state.may ? [own(), order(state, l, i)] : html`<span class="flex-1">${name}</span>`}
    </div>
    ${l.on ? strength(state, l) : nothing}
    ${
      l.on && plan
        ? html`<ul class="legend mt-1 text-sm">
            ${legend(plan, name)}
          </ul>`
        : nothing
    }
  </li>`;
}

/** Buttons and keys that move a layer. */
function order(state, l, i) {
  const move = (e, by) => {
    const list = e.currentTarget.closest("ol");
    state.move(i, by);
    list.children[i + by]?.querySelector(".order")?.focus();
  };
  const key = (e) => {
    if (!e.altKey || !["ArrowUp", "ArrowDown"].includes(e.key)) return;
    e.preventDefault();
    move(e, e.key === "ArrowUp" ? -1 : 1);
  };
  const last = i === state.layers.length - 1;
  return html`<button
      type="button"
      class="plain order"
      aria-label=${say("desk.moveUp", { what: l.name })}
      aria-disabled=${String(i === 0)}
      @click=${(e) => move(e, -1)}
      @keydown=${key}
    >
      ${symbol("up")}</button
    ><button
      type="button"
      class="plain"
      aria-label=${say("desk.moveDown", { what: l.name })}
      ?disabled=${last}
      @click=${() => state.move(i, 1)}
    >
      ${symbol("down")}
    </button>`;
}

function strength(state, l) {
  return html`<div class="flex items-center gap-2 mt-1">
    <label class="text-sm flex items-center gap-2"
      >${say("map.opacity")}<input
        type="range"
        min="0"
        max="1"
        step="0.05"
        .value=${live(String(l.opacity))}
        aria-label=${say("desk.map.opacityOf", { layer: l.name })}
        @input=${(e) => state.strength(l, Number(e.target.value))}
    /></label>
    <a class="text-sm ms-auto" href=${`/p/${state.project}/layers/${l.id}/look`}>${say("desk.map.look")}</a>
  </div>`;
}

function view(state, target, basemaps) {
  const save = html`<div class="stay-top flex items-center gap-3">
    <button class="main" type="button" id="save-map" ?disabled=${!state.isDirty} @click=${() => state.save()}>
      ${say("desk.map.save")}
    </button>
    <span role="status" id="map-said" class="quiet">${state.told}</span>
  </div>`;
  return html`<p class="problem" role="alert" ?hidden=${!state.failure}>${state.failure}</p>
    <div class="beside">
      ${target}
      <div class="tall overflow-y-auto">
        ${state.may ? save : nothing}
        <p class="quiet mb-2">${say("desk.map.order")}</p>
        <ol id="map-layers" class="flex flex-col gap-1">
          ${repeat(
            state.layers,
            (l) => l.id,
            (l, i) => row(state, l, i),
          )}
        </ol>
        ${state.may ? basemapsCard(state, basemaps) : nothing}
      </div>
    </div>`;
}

/** @param {HTMLElement} box */
export async function projectMapPage(box) {
  const { project = "" } = box.dataset;
  const target = Object.assign(document.createElement("div"), { className: "map tall", tabIndex: 0, ariaLabel: say("desk.map.map") });
  const inner = box.appendChild(document.createElement("div"));
  const saved = await getJson(`/api/p/${project}/map`);
  let basemaps = [];
  /** @type {any} */
  const state = new ProjectMapState({ project, map: null, saved, may: box.dataset.may === "true", changed: () => draw() });
  const draw = drawn(inner, () => view(state, target, basemaps));
  draw.now();
  state.map = maps.makeMap(target);
  let begun = false;
  basemaps = await withBasemaps(state.map, project, (b) => {
    if (begun) state.ground(b.id);
  });
  begun = true;
  draw();
  // so that all layers have their extent before the map is placed
  await Promise.all(state.layers.map((l) => state.draw(l)));
  draw();
  const extent = state.extent();
  if (extent) maps.show(state.map, extent, 20);
  box.dataset.ready = "true";
}
