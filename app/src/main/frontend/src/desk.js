// The desk: small behaviours at once (its keys are in keys.js); what belongs to one page comes with that page.
import Alpine from "@alpinejs/csp";
import { sayLengthsIn } from "./shell/format.js";
import { loadCatalogue, say } from "./shell/say.js";
import { keepTyped } from "./shell/kept.js";
import { day, offsetOf, shortDay, when } from "./shell/styles.js";
import { fillSymbols } from "./shell/symbols.js";

await loadCatalogue();
sayLengthsIn(document.documentElement.dataset.units);

// what the server writes of moments is in the person's time zone too
document.cookie = `zone=${Intl.DateTimeFormat().resolvedOptions().timeZone}; path=/; max-age=31536000; SameSite=Lax`;

/** Moments and days that the page carries, in the person's own time and style. */
function localTimes() {
  for (const t of /** @type {NodeListOf<HTMLTimeElement>} */ (document.querySelectorAll("time[datetime]"))) {
    if (t.dateTime.length === 10) {
      t.textContent = t.dataset.short === undefined ? day(t.dateTime) : shortDay(t.dateTime);
      continue;
    }
    t.textContent = when(t.dateTime);
    t.title = offsetOf(t.dateTime);
  }
}

/** Behaviour of what the server rendered. */
Alpine.data("dialogs", () => ({
  close() {
    /** @type {any} */ (this).$root.close();
  },
}));
Alpine.data("shutting", () => ({
  shut() {
    /** @type {any} */ (this).$root.open = false;
  },
  leave(e) {
    const box = /** @type {any} */ (this).$root;
    if (!box.contains(e.relatedTarget)) box.open = false;
  },
}));
Alpine.data("menu", () => ({
  open: false,
  turn() {
    this.open = !this.open;
  },
  shut() {
    this.open = false;
  },
}));

Alpine.data("editionsShown", () => ({
  turn(e) {
    for (const list of /** @type {any} */ (this).$root.querySelectorAll("[data-editions]")) list.hidden = !e.target.checked;
  },
}));

/** Elements with a module of their own. @type {Record<string, () => Promise<(box: any) => unknown>>} */
const pages = {
  "bring-in": async () => (await import("./desk/bring-in/choose.js")).choosePage,
  "running-job": async () => (await import("./desk/bring-in/job.js")).jobPage,
  report: async () => (await import("./desk/bring-in/report.js")).reportPage,
  "layer-page": async () => (await import("./desk/layer/page.js")).layerPage,
  "fields-page": async () => (await import("./desk/fields/page.js")).fieldsPage,
  "make-page": async () => (await import("./desk/fields/make.js")).makePage,
  profile: async () => (await import("./desk/values.js")).valuesPage,
  "look-page": async () => (await import("./desk/look/page.js")).lookPage,
  "draw-page": async () => (await import("./desk/draw/page.js")).drawPage,
  "project-map": async () => (await import("./desk/map/page.js")).projectMapPage,
  "form-page": async () => (await import("./desk/form/page.js")).formPage,
  "publish-dry": async () => (await import("./desk/form/publishing.js")).publishingPage,
  "round-now": async () => (await import("./desk/round/live.js")).livePage,
  "round-planner": async () => (await import("./desk/round/planner.js")).plannerPage,
  "visit-places": async () => (await import("./desk/visit/places.js")).visitPlaces,
  "project-new": async () => (await import("./desk/project/settings.js")).newProjectPage,
  "project-about": async () => (await import("./desk/project/settings.js")).aboutPage,
  "password-strength": async () => (await import("./desk/password.js")).passwordStrength,
  "going-back": async () => (await import("./desk/going-back.js")).goingBackPage,
  "carried-file": async () => (await import("./desk/visit/carried-file.js")).carriedFileCard,
  "take-out": async () => (await import("./desk/systems.js")).takeOutPage,
};

/** What fails in a page's module is said in the page. @param {HTMLElement} box @param {string} text */
function tell(box, text) {
  box.append(Object.assign(document.createElement("p"), { className: "problem", role: "alert", textContent: text }));
}

localTimes();
fillSymbols();
keepTyped();
Alpine.start();
addEventListener("signed-out", () => {
  const main = document.querySelector("main");
  if (!main || document.getElementById("signed-out")) return;
  const note = Object.assign(document.createElement("p"), {
    className: "problem",
    id: "signed-out",
    textContent: say("desk.signedOut") + " ",
  });
  const next = encodeURIComponent(location.pathname + location.search + location.hash);
  note.append(
    Object.assign(document.createElement("a"), { href: "/sign-in?next=" + next, target: "_blank", textContent: say("do.signIn") }),
  );
  main.prepend(note);
});
for (const [id, load] of Object.entries(pages)) {
  const box = document.getElementById(id);
  if (!box) continue;
  load()
    .then((page) => page(box))
    .catch((e) => tell(box, e.message));
}
