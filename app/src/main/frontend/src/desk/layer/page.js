// A layer on the map; a click, or a line of the list, opens the card of a feature beside it.
import { withBasemaps } from "../../map/basemaps.js";
import { LayerOnMap } from "../../map/layer-on-map.js";
import { legend } from "../../map/legend.js";
import * as maps from "../../map/map.js";
import { say } from "../../shell/say.js";
import { drawn as drawnIn, html, nothing } from "../../shell/view.js";
import { card } from "./card.js";
import { features } from "./features.js";
import { LayerState } from "./state.js";

/** From so many milliseconds on it is said that the layer is being read. */
const SLOW = 1500;

/** Begins the map with what is drawn on it. */
async function begin(box, target, state) {
  const { project = "", extent } = box.dataset;
  const map = maps.makeMap(target);
  await withBasemaps(map, project);
  maps.showText(map, extent);
  const drawn = new LayerOnMap(map, state.base, { isChosen: (id) => id === state.chosen, changed: (there) => state.has(there) });
  drawn.failure = (e) => state.fail(e);
  state.use(map, drawn, maps.picturePlaces(map));
  if (state.rule) await state.apply(state.rule);
  const slow = setTimeout(() => {
    state.slow = true;
    state.changed();
  }, SLOW);
  await drawn.start().finally(() => {
    clearTimeout(slow);
    state.slow = false;
  });
  map.on("singleclick", async (e) => {
    const id = await drawn.at(e.pixel).catch((error) => state.fail(error));
    if (id) await state.pick(id).catch((error) => state.fail(error));
  });
  drawn.pointAt();
}

/** @param {HTMLElement} box */
export async function layerPage(box) {
  const { project = "", layer = "" } = box.dataset;
  const part = (id) => /** @type {HTMLElement} */ (box.querySelector("#" + id));
  const home = `/p/${project}`;
  // what an empty layer says was rendered with the page
  const empty = part("first-feature") ?? undefined;
  const about = { outputs: `${home}/outputs`, layer, empty };
  /** @type {any} */
  const state = new LayerState({
    base: `/api/p/${project}/layers/${layer}`,
    home,
    work: box.dataset.work === "true",
    ruleLike: box.dataset.ruleLike ?? "",
    changed: () => draw(),
  });
  const told = () =>
    html`<p class="problem" role="alert" ?hidden=${!state.failure}>${state.failure}</p>
      ${state.slow ? html`<p class="told" role="status">${say("desk.layer.slow")}</p>` : nothing}`;
  const entries = () => (state.drawn?.plan ? legend(state.drawn.plan, say("desk.look.all")) : nothing);
  const all = [
    drawnIn(part("layer-told"), told),
    drawnIn(part("map-legend"), entries),
    drawnIn(part("beside-map"), () => (state.card ? card(state) : features(state, about))),
  ];
  const draw = () => all.forEach((one) => one());
  box.querySelector("[data-outside]")?.addEventListener("click", () => state.outside());
  draw();
  try {
    await begin(box, part("layer-map"), state);
    if (state.chosen) await state.pick(state.chosen);
    box.dataset.ready = "true";
  } catch (e) {
    state.fail(e);
  }
  draw();
}
