// The report of what files hold, with its maps; decisions are sent without leaving the page.
import * as maps from "../../map/map.js";
import { getJson, postForm } from "../../shell/server.js";
import { systemField } from "../systems.js";

const REPAIRED = new maps.Style({
  zIndex: 4,
  stroke: new maps.Stroke({ color: "#4f7359", width: 2 }),
  fill: new maps.Fill({ color: "rgba(79,115,89,0.35)" }),
});
const BROKEN = new maps.Style({
  zIndex: 3,
  stroke: new maps.Stroke({ color: "#94451f", width: 3, lineDash: [6, 4] }),
  fill: new maps.Fill({ color: "rgba(148,69,31,0.15)" }),
});

/** Another layer to import into is another page. */
function chooseTarget(i, value) {
  const [how, id] = value.split(":");
  const to = new URL(location.href);
  to.searchParams.delete("into" + i);
  to.searchParams.delete("target" + i);
  if (id) {
    to.searchParams.set("into" + i, id);
    to.searchParams.set("target" + i, how);
  }
  location.href = String(to);
}

async function partOfReport(part, project, lot, basemap) {
  const i = part.dataset.part;
  const find = (selector) => part.querySelector(selector);
  find("select.into").addEventListener("change", (e) => chooseTarget(i, e.target.value));
  const target = find(".map");
  if (!target) return;
  const map = maps.makeMap(target, basemap);
  const drawn = maps.featureLayer(map);
  const plain = /** @type {any} */ (drawn.getStyle());
  drawn.setStyle((f, r) => (f.get("repaired") ? REPAIRED : f.get("broken") ? BROKEN : plain(f, r)));
  const source = /** @type {any} */ (drawn.getSource());
  const input = find("input.system");
  const value = (n) => find(`select[name="${n}_${i}"]`)?.value ?? "";
  const show = async () => {
    const asked = { part: i, system: input.value.trim(), x: value("x"), y: value("y"), wkt: value("wkt"), repair: value("repair") };
    try {
      const data = await getJson(`/api/p/${project}/bring-in/${lot}/preview?${new URLSearchParams(asked)}`);
      source.clear();
      source.addFeatures(maps.format.readFeatures(data));
      maps.show(map, source.getExtent(), 24);
      find(".system-problem").textContent = data.problem;
      if (data.system) find(".system-name").textContent = data.system + ".";
      find(".system-accuracy").textContent = data.accuracy;
      find(".unsure").hidden = !data.unsure;
    } catch (e) {
      find(".system-problem").textContent = e.message;
    }
    part.dataset.shown = "true";
  };
  for (const s of part.querySelectorAll("select.place, .repair select")) s.addEventListener("change", show);
  systemField(input, `/api/p/${project}/systems`, show);
  await show();
}

/** @param {HTMLFormElement} form */
export async function reportPage(form) {
  const { project, lot } = form.dataset;
  const problem = /** @type {HTMLElement} */ (form.querySelector("#decide-problem"));
  form.addEventListener("submit", async (e) => {
    if (e.submitter?.hasAttribute("formaction")) return; // a table is to be read otherwise
    e.preventDefault();
    problem.hidden = true;
    try {
      location.href = (await postForm(`/api/p/${project}/bring-in/${lot}/decide`, new FormData(form))).page;
    } catch (error) {
      problem.textContent = error.message;
      problem.hidden = false;
    }
  });
  const basemap = await getJson(`/api/p/${project}/basemap`);
  for (const part of form.querySelectorAll(".part")) await partOfReport(part, project, lot, basemap);
  form.dataset.ready = "true";
}
