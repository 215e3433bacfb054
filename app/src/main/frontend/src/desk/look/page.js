// The look of a layer: how features are sorted into the legend's entries, and what each draws. Every change is on the map at once; saved for everybody by one button.
import { withBasemaps } from "../../map/basemaps.js";
import { LayerOnMap } from "../../map/layer-on-map.js";
import * as maps from "../../map/map.js";
import { say } from "../../shell/say.js";
import { getJson } from "../../shell/server.js";
import { drawn, html, repeat } from "../../shell/view.js";
import { entry } from "./entry.js";
import { files, labels } from "./labels.js";
import { sorting } from "./sorting.js";
import { LookState } from "./state.js";

/** The picture of an icon that somebody brought in. */
function ownPicture(icon) {
  const paint = (p) => (p === "colour" ? "#1f2a30" : p === "outline" ? "#fff" : p);
  const box = Number(icon.box);
  const part = (p) => `<path d="${p.path}" fill="${paint(p.fill)}" stroke="${paint(p.stroke)}" stroke-width="${Number(p.width)}"/>`;
  return `<svg xmlns="http://www.w3.org/2000/svg" width="24" height="24" viewBox="0 0 ${box} ${box}">${icon.parts.map(part).join("")}</svg>`;
}

/** The page's two columns, with the elements that are filled. @param {HTMLElement} box */
function columns(box) {
  const target = document.createElement("div");
  Object.assign(target, { className: "map tall", tabIndex: 0, ariaLabel: say("desk.look.map") });
  const side = Object.assign(document.createElement("div"), { className: "tall-side overflow-y-auto pe-1", id: "look-editor" });
  const foot = Object.assign(document.createElement("div"), { className: "stay flex items-center gap-3", id: "look-foot" });
  drawn(
    box,
    () =>
      html`<div class="beside wide-side">
        ${target}
        <div>${side}${foot}</div>
      </div>`,
  ).now();
  return { target, side, foot };
}

function footOf(state) {
  const acts = state.may
    ? html`<button class="main" type="button" id="save-look" ?disabled=${!state.isDirty} @click=${() => state.save()}>
          ${say("desk.look.save")}
        </button>
        <button type="button" id="undo-look" ?disabled=${!state.undone.can} @click=${() => state.undo()}>${say("do.undo")}</button>`
    : html`<span class="quiet">${say("desk.look.onlyCoordinator")}</span>`;
  const said = state.told || (state.isDirty ? say("desk.look.triedOnly") : say("desk.look.asAll"));
  return html`${acts}<span role="status" id="look-said">${said}</span>`;
}

function editor(state, choices) {
  const own = Object.entries(state.look.icons ?? {}).map(([id, icon]) => ({
    id,
    label: icon.label || say("desk.look.anIcon"),
    svg: ownPicture(icon),
  }));
  const icons = [...choices.icons, ...own];
  const general = [...(state.failure ? [{ message: state.failure }] : []), ...state.shown.problems.filter((p) => p.entry < 0)];
  const entries = state.entries.map((c, i) => ({ c, i }));
  return html`<div id="look-problems">${general.map((p) => html`<p class="told">${p.message}</p>`)}</div>
    ${sorting(state, choices)}
    <div id="look-entries">
      ${repeat(
        entries,
        ({ i }) => i,
        ({ c, i }) => entry(state, c, i, icons),
      )}
    </div>
    ${labels(state)}${files(state)}`;
}

/** @param {HTMLElement} box */
export async function lookPage(box) {
  const { project, layer, kind = "", extent } = box.dataset;
  const read = (name) => JSON.parse(box.dataset[name] ?? "null");
  const [fields, choices] = [read("fields"), { icons: read("icons"), ramps: read("ramps"), ways: read("ways") }];
  const may = box.dataset.may === "true";
  const base = `/api/p/${project}/layers/${layer}`;
  const { target, side, foot: footBox } = columns(box);
  const first = await getJson(`${base}/look`);
  const map = maps.makeMap(target);
  maps.showText(map, extent);
  const onMap = new LayerOnMap(map, base);
  /** @type {() => void} */
  let draw = () => {};
  const state = new LookState({
    base,
    first,
    may,
    kind,
    fields,
    ruleLike: box.dataset.ruleLike ?? "",
    changed: () => draw(),
    tried: (key, plan) => onMap.tryLook(key, plan),
    answered: (turn) => (box.dataset.turn = String(turn)),
  });
  let ready = false;
  await withBasemaps(map, project ?? "", (b) => {
    state.ground = b.ground;
    if (ready && may) state.tryIt(); // whether colours drown depends on it
  });
  await onMap.start();
  ready = true;
  box.dataset.turn = "0";
  const parts = [drawn(side, () => editor(state, choices)), drawn(footBox, () => footOf(state))];
  draw = () => parts.forEach((part) => part());
  draw();
  addEventListener("beforeunload", (e) => {
    if (state.isDirty) e.preventDefault();
  });
  box.dataset.ready = "true";
}
