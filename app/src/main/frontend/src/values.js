// The page of a field's values: where the features of a group of spellings are.
import { withBasemaps } from "./basemaps.js";
import { LayerOnMap } from "./layer-on-map.js";
import * as maps from "./map.js";

export async function valuesPage(box) {
  // what is still being compared is looked for again while somebody waits
  if (document.getElementById("comparing")) setTimeout(() => location.reload(), 2500);
  const target = box.querySelector("#values-map");
  if (!target) return;
  const { project, layer } = box.dataset;
  const said = box.querySelector("#values-map-said");
  const map = maps.makeMap(target);
  await withBasemaps(map, project);
  const drawn = new LayerOnMap(map, `/api/p/${project}/layers/${layer}`, { isChosen: () => true });
  drawn.filter = box.querySelector(".group")?.dataset.filter ?? "";
  await drawn.start();
  const show = async (group) => {
    for (const g of box.querySelectorAll(".group")) g.toggleAttribute("data-shown", g === group);
    try {
      drawn.filter = group.dataset.filter;
      await drawn.load(true);
      if (drawn.extent()) maps.show(map, drawn.extent(), 30);
      said.textContent = `${drawn.state.count} ${drawn.state.count === 1 ? "feature has" : "features have"} one of these spellings.`;
    } catch (e) {
      said.textContent = e.message;
    }
  };
  for (const b of box.querySelectorAll(".show-group")) b.addEventListener("click", () => show(b.closest(".group")));
  await show(box.querySelector(".group"));
  box.dataset.ready = "true";
}
