// The page of an open stop: the sheet by pages, the open points on each, photos, saving.
import { answering, makeSheet } from "../../sheet/sheet.js";
import { openWords } from "../../sheet/points.js";
import { loadEngine } from "../../shell/engine.js";
import { say } from "../../shell/say.js";
import { VISIT } from "../../shell/states.js";
import { render } from "../../shell/view.js";
import { whenFixed } from "../fix.js";
import * as store from "../store.js";
import { keeping } from "./keeping.js";
import { pictures } from "./pictures.js";
import { stopView } from "./stop-view.js";
import { swipe } from "./swipe.js";

/** On which page of the sheet an open point is. */
function pageOf(view, p) {
  const has = (s) => s.name === p.question || s.questions.some((q) => q.name === p.question) || s.rows?.some((r) => r.id === p.row);
  return view.sections.find(has)?.page;
}

/**
 * Draws an open visit into the day book's root: pages of the sheet, the trail of open points on each, saving. `noted` is what to know there. `leave` is called when the person goes
 * back, with a message or without. Gives the function that ends what the page watches.
 * @param {{root: HTMLElement, visit: any, noted: unknown, release: () => void, leave: (message?: any) => Promise<void>}} how
 */
export async function stopPage({ root, visit, noted, release, leave }) {
  const engine = await loadEngine();
  const state = { page: 0, pointsOpen: false, note: null, kept: "" };
  const sheetBox = document.createElement("div");
  let view = visit.view();
  const told = (kind, text) => {
    state.note = { kind, text };
    paint();
  };
  const kept = keeping({ visit, told, noted: (text) => ((state.kept = text), paint()) });
  const photos = await pictures({ visit, told, draw });
  const change = (deed) => {
    deed();
    draw();
    kept.soon();
  };
  const sheet = makeSheet(sheetBox, { ...answering(visit.open, change), ...photos.deeds });
  const acts = {
    back: () => leaveStop(),
    points: () => showPoints(!state.pointsOpen),
    jump: (p) => {
      Object.assign(state, { pointsOpen: false, page: pageOf(view, p) ?? state.page });
      draw();
      sheet.goTo(p.question, p.row);
    },
    go: (to) => {
      if (to < 0 || to >= view.pages) return;
      state.page = to;
      draw();
      scrollTo(0, 0);
    },
    takeBack: () => change(() => visit.open.undo()),
    placeOnMap: async () => {
      const { placeOnMap } = await import("./place-map.js");
      const shape = await placeOnMap(visit);
      if (shape) await visit.reshape(shape).then(() => change(() => {}));
    },
    moveTo: (fix) => visit.moveTo(fix.lon, fix.lat).then(() => change(() => {})),
    save,
  };
  swipe(sheetBox, (step) => acts.go(state.page + step));

  function paint() {
    render(stopView({ view, state, acts, sheetBox, engine, visit, noted }), root);
  }
  function draw() {
    view = visit.view();
    state.page = Math.min(state.page, view.pages - 1);
    sheet.draw(view, { page: state.page });
    paint();
  }
  function showPoints(open) {
    state.pointsOpen = open;
    paint();
    if (open) root.querySelector("#open-points")?.scrollIntoView({ block: "nearest" });
  }

  async function save() {
    kept.stop();
    try {
      await visit.keep(view.complete ? VISIT.COMPLETE : VISIT.BEGUN);
    } catch (e) {
      if (!(e instanceof store.StoreFull)) throw e;
      return told("problem", say("day.full.save"));
    }
    if (view.complete) return leaveStop({ kind: "done", text: say("day.saved", { caption: view.caption }) });
    told("told", say("day.keptAsBegun", { open: openWords(view.points.filter((p) => p.kind !== "wanted")) }));
    showPoints(true);
  }

  async function leaveStop(message) {
    await kept.end();
    photos.end();
    release();
    await leave(message);
  }

  draw();
  return whenFixed(paint);
}
