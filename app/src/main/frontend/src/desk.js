// The desk: small behaviours as Alpine components, bigger ones in modules of their own.
import Alpine from "@alpinejs/csp";
import { bringInPages } from "./bring-in.js";
import { formPage } from "./desk-form.js";
import { layerPage, roundPlanner, visitPlaces } from "./desk-maps.js";
import { fieldsPage } from "./fields.js";
import { makePage } from "./layer-make.js";
import { fillSymbols } from "./symbols.js";
import { systemField } from "./systems.js";
import { valuesPage } from "./values.js";

Alpine.data("layerPage", layerPage);
Alpine.data("roundPlanner", roundPlanner);
Alpine.data("visitPlaces", visitPlaces);
Alpine.data("formPage", formPage);

/** Keys: g and a letter goes along the path; on a visit j k a b; ? lists them. */
let pending = false;
document.addEventListener("keydown", (e) => {
  if (e.target.closest("input, textarea, select") || e.ctrlKey || e.metaKey || e.altKey) return;
  if (e.key === "?") return document.getElementById("keys")?.showModal();
  const goal = pending ? document.querySelector(`[data-go="${e.key}"]`) : document.querySelector(`[data-key="${e.key}"]`);
  pending = e.key === "g" && !pending;
  if (goal) {
    e.preventDefault();
    if (goal.matches("a")) goal.click();
    else goal.focus();
    if (goal.matches("button")) goal.click();
  }
});

for (const b of document.querySelectorAll("[data-close]")) b.addEventListener("click", () => b.closest("dialog").close());
for (const t of document.querySelectorAll("time[datetime]")) {
  const d = new Date(t.dateTime);
  const offset = -d.getTimezoneOffset();
  t.textContent = d.toLocaleString([], { dateStyle: "medium", timeStyle: "short" });
  t.title = `UTC ${offset < 0 ? "−" : "+"}${String(Math.floor(Math.abs(offset) / 60)).padStart(2, "0")}:${String(Math.abs(offset) % 60).padStart(2, "0")}`;
}
fillSymbols();
Alpine.start();

/** Pages with a module of their own; what fails there is said in the page. */
const pages = { "fields-page": fieldsPage, "make-page": makePage, profile: valuesPage, "take-out": (form) => systemField(form.querySelector("#system"), form.dataset.project) };
for (const [id, page] of Object.entries(pages)) {
  const box = document.getElementById(id);
  if (box) Promise.resolve(page(box)).catch((e) => box.append(Object.assign(document.createElement("p"), { className: "problem", role: "alert", textContent: e.message })));
}
bringInPages();
