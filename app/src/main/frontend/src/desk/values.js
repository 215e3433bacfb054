// The page of a field's values: where the features of a group of spellings are.
import { withBasemaps } from "../map/basemaps.js";
import { LayerOnMap } from "../map/layer-on-map.js";
import * as maps from "../map/map.js";
import { say } from "../shell/say.js";

/** So long until it is looked again for what is still being compared, in milliseconds. */
const AGAIN = 2500;

/** @param {HTMLElement} box */
export async function valuesPage(box) {
  if (document.getElementById("comparing")) setTimeout(() => location.reload(), AGAIN);
  const target = /** @type {HTMLElement | null} */ (box.querySelector("#values-map"));
  if (!target) return;
  const { project = "", layer } = box.dataset;
  const groups = /** @type {HTMLElement[]} */ ([...box.querySelectorAll(".group")]);
  const said = /** @type {HTMLElement} */ (box.querySelector("#values-map-said"));
  const map = maps.makeMap(target);
  await withBasemaps(map, project);
  const drawn = new LayerOnMap(map, `/api/p/${project}/layers/${layer}`, { isChosen: () => true });
  drawn.filter = groups[0].dataset.filter ?? "";
  await drawn.start();
  const show = async (group) => {
    for (const g of groups) g.toggleAttribute("data-shown", g === group);
    try {
      drawn.filter = group.dataset.filter;
      await drawn.load(true);
      if (drawn.extent()) maps.show(map, drawn.extent(), 30);
      said.textContent = say("desk.values.have", { n: drawn.state.count });
    } catch (e) {
      said.textContent = e.message;
    }
  };
  for (const b of box.querySelectorAll(".show-group")) b.addEventListener("click", () => show(b.closest(".group")));
  await show(groups[0]);
  box.dataset.ready = "true";
}
