// The desk: small behaviours at once (its keys are in keys.js); what belongs to one page comes with that page.
import Alpine from "@alpinejs/csp";
import { fillSymbols } from "./symbols.js";

for (const b of document.querySelectorAll("[data-close]")) b.addEventListener("click", () => b.closest("dialog").close());
for (const t of document.querySelectorAll("time[datetime]")) {
  const d = new Date(t.dateTime);
  const offset = -d.getTimezoneOffset();
  t.textContent = d.toLocaleString([], { dateStyle: "medium", timeStyle: "short" });
  t.title = `UTC ${offset < 0 ? "−" : "+"}${String(Math.floor(Math.abs(offset) / 60)).padStart(2, "0")}:${String(Math.abs(offset) % 60).padStart(2, "0")}`;
}
fillSymbols();

const maps = () => import("./desk-maps.js");
/** Alpine components, each with the module that it comes from. */
const components = { layerPage: maps, roundPlanner: maps, visitPlaces: maps, formPage: () => import("./desk-form.js") };
/** Elements with a module of their own. */
const pages = {
  "bring-in": async () => (await import("./bring-in.js")).choosePage,
  "running-job": async () => (await import("./bring-in.js")).jobPage,
  report: async () => (await import("./bring-in.js")).reportPage,
  "fields-page": async () => (await import("./fields.js")).fieldsPage,
  "make-page": async () => (await import("./layer-make.js")).makePage,
  profile: async () => (await import("./values.js")).valuesPage,
  "look-page": async () => (await import("./look-page.js")).lookPage,
  "draw-page": async () => (await import("./draw-page.js")).drawPage,
  "project-map": async () => (await import("./project-map.js")).projectMapPage,
  "take-out": async () => (await import("./systems.js")).takeOutPage,
};

for (const [name, module] of Object.entries(components)) if (document.querySelector(`[x-data="${name}"]`)) Alpine.data(name, (await module())[name]);
Alpine.start();
for (const [id, load] of Object.entries(pages)) {
  const box = document.getElementById(id);
  // what fails in a page's module is said in the page
  if (box) load().then((page) => page(box)).catch((e) => box.append(Object.assign(document.createElement("p"), { className: "problem", role: "alert", textContent: e.message })));
}
