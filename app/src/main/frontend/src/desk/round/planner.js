// Picks the stops of a round: by rectangle on the map, by a click, or in the list.
import DragBox from "ol/interaction/DragBox.js";
import { withBasemaps } from "../../map/basemaps.js";
import { LayerOnMap } from "../../map/layer-on-map.js";
import * as maps from "../../map/map.js";
import { say } from "../../shell/say.js";
import { drawn as drawnIn, html, live, nothing, repeat } from "../../shell/view.js";

const MOST_LISTED = 300;

class Planner {
  /** @type {Set<string>} */
  chosen = new Set();
  found = "";
  drawing = false;
  failure = "";
  there = { features: [], drawn: true };

  /** @param {() => void} changed @param {number} most so many stops a round may have */
  constructor(changed, most) {
    this.changed = changed;
    this.most = most;
  }
  fail(e) {
    this.failure = e.message;
    this.changed();
  }
  toggle(id) {
    if (!this.chosen.delete(id)) this.chosen.add(id);
    this.changed();
  }
  clear() {
    this.chosen.clear();
    this.changed();
  }
  turnDrawing() {
    this.drawing = !this.drawing;
    this.changed();
  }
  /** Adds what lies in a rectangle that was drawn. */
  add(ids) {
    for (const id of ids) this.chosen.add(id);
    this.drawing = false;
    this.changed();
  }
  get said() {
    return say("desk.round.stops", { n: this.chosen.size });
  }
}

function list(state) {
  const wanted = state.found.trim().toLowerCase();
  const all = state.there.features.map((f) => ({ id: f.id, caption: f.caption || say("desk.noCaption") }));
  const hits = all.filter((f) => f.caption.toLowerCase().includes(wanted)).slice(0, MOST_LISTED);
  const line = (f) =>
    html`<li>
      <label class="flex gap-2 items-center py-0.5"
        ><input type="checkbox" .checked=${live(state.chosen.has(f.id))} @change=${() => state.toggle(f.id)} /><span
          >${f.caption}</span
        ></label
      >
    </li>`;
  return html`${state.there.drawn ? nothing : html`<p class="told">${say("desk.round.tooMany")}</p>`}
    <ul class="stop-choices overflow-y-auto card" tabindex="0" aria-label=${say("desk.round.choices")}>
      ${repeat(hits, (f) => f.id, line)}
    </ul>`;
}

function head(state) {
  return html`<button type="button" id="draw-rectangle" aria-pressed=${String(state.drawing)} @click=${() => state.turnDrawing()}>
      ${state.drawing ? say("desk.round.drag") : say("desk.round.rectangle")}</button
    ><button class="plain" type="button" @click=${() => state.clear()}>${say("desk.round.clear")}</button
    ><strong id="chosen-count" role="status">${state.said}</strong>${
      state.chosen.size > state.most
        ? html`<span class="point firm" id="too-many">${say("desk.round.overTheMost", { most: state.most })}</span>`
        : nothing
    }`;
}

async function begin(box, target, state) {
  const { project = "", layer, extent } = box.dataset;
  const map = maps.makeMap(target);
  await withBasemaps(map, project);
  maps.showText(map, extent);
  const drawn = new LayerOnMap(map, `/api/p/${project}/layers/${layer}`, {
    isChosen: (id) => state.chosen.has(id),
    changed: (there) => {
      state.there = there;
      state.changed();
    },
  });
  drawn.failure = (e) => state.fail(e);
  await drawn.start();
  const rectangle = new DragBox({ condition: (e) => state.drawing || e.originalEvent.shiftKey });
  rectangle.on("boxend", () => {
    const ids = [];
    drawn.source.forEachFeatureIntersectingExtent(rectangle.getGeometry().getExtent(), (f) => void ids.push(f.getId()));
    state.add(ids);
  });
  map.addInteraction(rectangle);
  map.on("singleclick", async (e) => {
    const id = await drawn.at(e.pixel).catch((error) => state.fail(error));
    if (id) state.toggle(id);
  });
  return drawn;
}

/** @param {HTMLElement} box */
export async function plannerPage(box) {
  const part = (id) => /** @type {any} */ (box.querySelector("#" + id));
  /** @type {any} */
  let onMap;
  const state = new Planner(() => draw(), Number(box.dataset.most));
  // what was chosen before it was refused
  for (const id of part("features").value.split(",")) if (id) state.chosen.add(id);
  const all = [
    drawnIn(part("planner-told"), () => html`<p class="problem" role="alert" ?hidden=${!state.failure}>${state.failure}</p>`),
    drawnIn(part("planner-head"), () => head(state)),
    drawnIn(part("planner-list"), () => list(state)),
  ];
  const draw = () => {
    all.forEach((one) => one());
    onMap?.redraw();
    part("features").value = [...state.chosen].join(",");
    part("make-round").disabled = state.chosen.size === 0 || state.chosen.size > state.most;
    part("make-round").textContent =
      state.chosen.size === 0 ? say("desk.round.chooseFirst") : say("desk.round.make", { stops: state.said });
  };
  part("found").addEventListener("input", (e) => {
    state.found = e.target.value;
    state.changed();
  });
  draw();
  try {
    onMap = await begin(box, part("planner-map"), state);
    draw();
    box.dataset.ready = "true";
  } catch (e) {
    state.fail(e);
  }
}
