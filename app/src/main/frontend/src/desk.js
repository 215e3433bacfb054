// The desk: small behaviours as Alpine components, bigger ones in modules of their own.
import Alpine from "@alpinejs/csp";
import { formPage } from "./desk-form.js";
import { layerPage, roundPlanner, visitPlaces } from "./desk-maps.js";
import { fillSymbols } from "./symbols.js";

Alpine.data("layerPage", layerPage);
Alpine.data("roundPlanner", roundPlanner);
Alpine.data("visitPlaces", visitPlaces);
Alpine.data("formPage", formPage);

/** Shows the name of a chosen or dropped file, and that something is happening once it is sent. */
Alpine.data("bringIn", () => ({
  name: "",
  busy: false,
  choose() {
    this.name = this.$refs.file.files[0]?.name ?? "";
  },
  drop(event) {
    event.preventDefault();
    this.$refs.file.files = event.dataTransfer.files;
    this.choose();
  },
  over(event) {
    event.preventDefault();
  },
  send() {
    this.busy = true;
  },
  get none() {
    return this.name === "";
  },
}));

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
