// The page of a field's values: where the features of a group of spellings are.
import { request } from "./api.js";
import * as maps from "./map.js";

export async function valuesPage(box) {
  const target = box.querySelector("#values-map");
  if (!target) return;
  const { project, layer } = box.dataset;
  const said = box.querySelector("#values-map-said");
  const map = maps.makeMap(target, await (await request(`/api/p/${project}/basemap`)).json());
  const drawn = maps.featureLayer(map, () => true);
  const show = async (group) => {
    for (const g of box.querySelectorAll(".group")) g.toggleAttribute("data-shown", g === group);
    try {
      const data = await (await request(`/api/p/${project}/layers/${layer}/features?filter=${encodeURIComponent(group.dataset.filter)}`)).json();
      drawn.getSource().clear();
      drawn.getSource().addFeatures(maps.format.readFeatures(data));
      maps.show(map, drawn.getSource().getExtent(), 30);
      said.textContent = `${data.count} ${data.count === 1 ? "feature has" : "features have"} one of these spellings.`;
    } catch (e) {
      said.textContent = e.message;
    }
  };
  for (const b of box.querySelectorAll(".show-group")) b.addEventListener("click", () => show(b.closest(".group")));
  await show(box.querySelector(".group"));
  box.dataset.ready = "true";
}
