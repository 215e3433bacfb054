// The page of an open stop: the sheet by pages, the open points on each, photos, saving.
import { VISIT } from "./states.js";
import { h } from "./dom.js";
import { loadEngine } from "./engine.js";
import { currentFix, watchPosition } from "./fix.js";
import { metres } from "./format.js";
import { answering, makeSheet, openWords, pointMark, trail } from "./sheet.js";
import * as store from "./store.js";
import { symbol } from "./symbols.js";

/**
 * Draws an open visit into the day book's root: pages of the sheet, the trail of open points on each, saving. `leave` is called when the person goes
 * back, with a message or without. Gives the function that ends what the page watches.
 */
export async function stopPage({ root, visit, release, leave }) {
  let page = 0;
  const engine = await loadEngine();
  let timer = 0;
  const urls = new Map();
  const notes = new Map();
  for (const p of (await store.all("photos")).filter((p) => p.visit === visit.visit.id)) remember(p);
  function remember(p) {
    urls.set(p.id, URL.createObjectURL(p.blob));
    notes.set(p.id, p.note);
  }
  const note = h("div", { "aria-live": "polite" });
  const sheetBox = h("div");
  const sheet = makeSheet(sheetBox, {
    ...answering(visit.open, change),
    addPhoto: async (name, file, row) => {
      try {
        remember(await visit.addPhoto(name, file, row));
        told("done", "The photo is kept on this device.");
      } catch (e) {
        if (e instanceof store.StoreFull) told("problem", "The device's store is full: this photo was not kept. The visit and everything saved before are still here. Hand in what is carried, then take the photo again.");
        else told("problem", "This file could not be read as a picture; it was not kept. The visit is as it was.");
      }
      draw();
    },
    removePhoto: async (name, id, row) => { await visit.removePhoto(name, id, row); draw(); },
    photo: (id) => ({ url: urls.get(id), note: notes.get(id) }),
  });
  const trailButton = h("button", { type: "button", class: "trail", id: "trail", onclick: () => openPoints() });
  const title = h("div", { class: "min-w-0 flex-1" });
  const place = h("div", { class: "card", id: "place" });
  const points = h("div", { class: "card", id: "open-points", hidden: true });
  const turn = h("div", { class: "q-answer" });
  const back = h("button", { type: "button", class: "plain ml-auto", id: "take-back", hidden: true, onclick: () => change(() => visit.open.undo()) }, "Take back");
  const save = h("button", { type: "button", class: "main", id: "save", onclick: () => saveVisit() });
  root.replaceChildren(
    h("header", { class: "day-head" }, h("button", { type: "button", "aria-label": "Back to the stops", onclick: () => leaveStop() }, symbol("left")), title),
    trailButton,
    h("div", { class: "day-body" }, note, points, sheetBox, place, turn),
    h("div", { class: "day-foot" }, h("span", { class: "quiet self-center", id: "kept" }), back, save));
  const keptNote = root.querySelector("#kept");
  swipe(sheetBox, (step) => go(page + step));

  function told(kind, text) {
    note.replaceChildren(h("div", { class: kind, role: kind === "problem" ? "alert" : "status" }, text));
  }

  function change(deed) {
    deed();
    draw();
    clearTimeout(timer);
    timer = setTimeout(keep, 250);
  }

  async function keep() {
    clearTimeout(timer);
    timer = 0;
    try {
      await visit.keep();
      keptNote.textContent = "kept on this device";
    } catch (e) {
      if (!(e instanceof store.StoreFull)) throw e;
      told("problem", "The device's store is full: the last change is on the screen but not kept. What was kept before is still here. Hand in what is carried, or free space, then save.");
      keptNote.textContent = "not kept";
    }
  }

  const now = () => { if (timer) keep(); };
  document.addEventListener("visibilitychange", now);
  addEventListener("pagehide", now);

  function draw() {
    const view = visit.view();
    page = Math.min(page, view.pages - 1);
    title.replaceChildren(h("h1", {}, view.caption), h("p", { class: "text-sm" }, `${view.title} · page ${page + 1} of ${view.pages}`));
    trailButton.replaceChildren(trail(view), h("span", {}, openWords(view.points)));
    sheet.draw(view, { page });
    drawPlace(view);
    drawPoints(view);
    turn.replaceChildren(page > 0 ? h("button", { type: "button", onclick: () => go(page - 1) }, symbol("left"), "Page " + page) : "", page < view.pages - 1 ? h("button", { type: "button", class: "ml-auto", id: "next-page", onclick: () => go(page + 1) }, `Page ${page + 2}`, symbol("right")) : "");
    back.hidden = !view.canUndo;
    const open = view.points.filter((p) => p.kind !== "wanted").length;
    save.replaceChildren(view.complete ? "Save visit" : `Save, ${open} open`);
  }

  function drawPlace(view) {
    const fix = currentFix();
    const away = fix && view.place ? ` You stand ${metres(JSON.parse(engine.shape(JSON.stringify({ op: "distance", geometry: { type: "Point", coordinates: [view.place.lon, view.place.lat] }, lon: fix.lon, lat: fix.lat }))).distanceM)} from it.` : "";
    place.replaceChildren(h("p", {}, h("strong", {}, "Place "), view.place ? `${view.place.lat.toFixed(5)}°, ${view.place.lon.toFixed(5)}°.` : "none yet.", away),
      fix ? h("button", { type: "button", class: "plain", id: "move-here", onclick: () => change(() => visit.open.moveTo(fix.lon, fix.lat)) }, `Move it to where I stand (±${Math.round(fix.accuracy)} m)`) : "");
  }

  function drawPoints(view) {
    const groups = [["firm", "To mend"], ["needed", "To fill"], ["soft", "To look at"], ["wanted", "Wanted"]];
    points.replaceChildren(h("h2", {}, "Open points"), view.points.length === 0 ? h("p", {}, "Nothing is open.") : "",
      ...groups.flatMap(([kind, words]) => {
        const some = view.points.filter((p) => p.kind === kind);
        return some.length ? [h("h3", {}, words), h("ul", {}, some.map((p) => h("li", {}, h("button", { type: "button", class: "plain text-left", onclick: () => jump(view, p) }, pointMark(kind), `${p.label}: ${p.message}`))))] : [];
      }));
  }

  function openPoints() {
    points.hidden = !points.hidden;
    if (!points.hidden) points.scrollIntoView({ block: "nearest" });
  }

  function jump(view, p) {
    const s = view.sections.find((x) => x.name === p.question || x.questions.some((q) => q.name === p.question) || x.rows?.some((r) => r.id === p.row));
    points.hidden = true;
    page = s?.page ?? page;
    draw();
    sheet.goTo(p.question, p.row);
  }

  function go(to) {
    const view = visit.view();
    if (to < 0 || to >= view.pages) return;
    page = to;
    draw();
    scrollTo(0, 0);
  }

  async function saveVisit() {
    const view = visit.view();
    clearTimeout(timer);
    timer = 0;
    try {
      await visit.keep(view.complete ? VISIT.COMPLETE : VISIT.BEGUN);
    } catch (e) {
      if (!(e instanceof store.StoreFull)) throw e;
      return told("problem", "The device's store is full: the visit was not saved. What was kept before is still here. Hand in what is carried, or free space, then save again.");
    }
    if (view.complete) {
      return leaveStop({ kind: "done", text: `${view.caption} is saved. It is carried until you hand in.` });
    }
    told("told", `Kept as begun. ${openWords(view.points.filter((p) => p.kind !== "wanted"))} before it is complete.`);
    points.hidden = false;
    points.scrollIntoView({ block: "nearest" });
  }

  async function leaveStop(message) {
    if (timer) await keep();
    document.removeEventListener("visibilitychange", now);
    removeEventListener("pagehide", now);
    for (const u of urls.values()) URL.revokeObjectURL(u);
    release();
    await leave(message);
  }

  draw();
  return watchPosition(() => drawPlace(visit.view()));
}

function swipe(element, turn) {
  let from = null;
  element.addEventListener("touchstart", (e) => { from = e.touches.length === 1 ? e.touches[0] : null; }, { passive: true });
  element.addEventListener("touchend", (e) => {
    const to = e.changedTouches[0];
    if (from && Math.abs(to.clientX - from.clientX) > 80 && Math.abs(to.clientY - from.clientY) < 40) turn(to.clientX < from.clientX ? 1 : -1);
    from = null;
  }, { passive: true });
}
