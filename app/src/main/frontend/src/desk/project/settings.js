// The settings of a project: where it lies on the map of the world, which coordinate systems are usual there, where features are expected.
import { fromExtent } from "ol/geom/Polygon.js";
import * as maps from "../../map/map.js";
import { degrees } from "../../shell/format.js";
import { say } from "../../shell/say.js";
import { getJson } from "../../shell/server.js";
import { html, live, nothing, render } from "../../shell/view.js";

/** So long after the last key systems are looked for, in milliseconds. */
const PAUSE = 250;
/** A click brings the map at least so near that a country fills it. */
const NEAR = 5;
const WORLD = [-170, -56, 179, 74];

/** West, south, east and north out of what is typed; null when it is no area. @param {string} text */
function boxOf(text) {
  const n = text
    .trim()
    .split(/\s*[,;]\s*|\s+/)
    .map(Number);
  return n.length === 4 && n.every(Number.isFinite) && n[1] < n[3] ? n : null;
}

const boxText = (box) => box.map((n) => String(Math.round(n * 1e5) / 1e5)).join(", ");
const longitude = (x) => ((((x + 180) % 360) + 360) % 360) - 180;

/** A box beyond the date line goes on to the east. */
const extentOf = ([w, s, e, n]) => maps.ofDegrees([w, Math.max(-85, s), e < w ? e + 360 : e, Math.min(85, n)]);

const style = (stroke, fill, dash) =>
  new maps.Style({
    stroke: new maps.Stroke({ color: stroke, width: 2, lineDash: dash }),
    fill: new maps.Fill({ color: fill }),
  });

/** The map of the world with the area of a system, the expected area, and the place that was clicked. @param {HTMLElement} target */
function worldMap(target) {
  const map = maps.makeMap(target);
  const layer = (drawn) => {
    const source = new maps.VectorSource();
    map.addLayer(new maps.VectorLayer({ source, style: drawn, zIndex: 5 }));
    return source;
  };
  const use = layer(style("#3c4f5a", "rgba(60,79,90,0.06)", [6, 5]));
  const expected = layer(style("#6a3d7c", "rgba(106,61,124,0.12)", undefined));
  const dot = new maps.CircleStyle({
    radius: 6,
    fill: new maps.Fill({ color: "#6a3d7c" }),
    stroke: new maps.Stroke({ color: "#fbf9f3", width: 2 }),
  });
  const place = layer(new maps.Style({ image: dot }));
  const put = (source, geometry) => {
    source.clear();
    if (geometry) source.addFeature(new maps.Feature(geometry));
  };
  maps.show(map, maps.ofDegrees(WORLD), 0);
  return {
    map,
    showUse: (box) => put(use, box && fromExtent(extentOf(box))),
    showExpected: (box) => put(expected, box && fromExtent(extentOf(box))),
    showPlace: (lonLat) => put(place, lonLat && new maps.Point(maps.fromLonLat(lonLat))),
    goTo: (box) => maps.show(map, extentOf(box), 30),
    seen: () => {
      const [w, s] = maps.toLonLat(map.getView().calculateExtent().slice(0, 2));
      const [e, n] = maps.toLonLat(map.getView().calculateExtent().slice(2));
      return e - w >= 360 ? null : [longitude(w), s, longitude(e), n];
    },
  };
}

/** The field of the expected area with what fills it. @param {HTMLFormElement} form @param {any} world @param {() => any} systemBox */
function areaField(form, world, systemBox) {
  const input = /** @type {HTMLInputElement} */ (form.querySelector("#area"));
  const changed = () => world.showExpected(boxOf(input.value));
  const take = (box) => {
    if (!box) return;
    input.value = boxText(box);
    changed();
  };
  input.addEventListener("input", changed);
  render(
    html`<button type="button" @click=${() => take(world.seen())}>${say("desk.newProject.areaOfMap")}</button> ${
        systemBox === undefined
          ? nothing
          : html`<button type="button" @click=${() => take(systemBox())}>${say("desk.newProject.areaOfSystem")}</button>`
      }`,
    /** @type {HTMLElement} */ (form.querySelector("#area-buttons")),
  );
  changed();
  const box = boxOf(input.value);
  if (box) world.goTo(box);
}

/** The list of systems: those at a place, or those found by words. @param {HTMLFormElement} form @param {any} world */
function systemList(form, world) {
  const input = /** @type {HTMLInputElement} */ (form.querySelector("#system"));
  const box = /** @type {HTMLElement} */ (form.querySelector("#system-list"));
  /** @type {any} */
  let chosen = null;
  let asked = 0;
  /** @type {any} */
  let timer;

  const choose = (system, go) => {
    chosen = system;
    input.value = system.code;
    world.showUse(areaOf(system));
    if (go && areaOf(system)) world.goTo(areaOf(system));
    draw();
  };
  let shown = { title: "", systems: [] };
  const one = (s) =>
    html`<li>
      <label class="flex items-center gap-2"
        ><input type="radio" name="found" value=${s.code} .checked=${live(s.code === chosen?.code)} @change=${() => choose(s, true)} /><span
          ><span class="code">${s.code}</span> ${s.name}<span class="quiet block">${s.area}</span></span
        ></label
      >
    </li>`;
  const draw = () =>
    render(
      html`<p class="quiet" role="status">${shown.title}</p>
        <ul class="system-list" ?hidden=${shown.systems.length === 0}>
          ${shown.systems.map(one)}
        </ul>`,
      box,
    );

  /** @param {string} query @param {(systems: any[]) => string} titled */
  async function ask(query, titled) {
    const mine = ++asked;
    try {
      const { systems } = await getJson(`/api/own-systems?${query}`);
      if (mine !== asked) return;
      shown = { title: titled(systems), systems };
      const typed = input.value.trim();
      chosen = systems.find((s) => s.code === typed || s.code === "EPSG:" + typed) ?? null;
      world.showUse(areaOf(chosen));
    } catch {
      if (mine !== asked) return;
      shown = { title: say("desk.newProject.noLink"), systems: [] };
    }
    draw();
  }
  const find = () => {
    const q = input.value.trim();
    if (q) return ask(`q=${encodeURIComponent(q)}`, (systems) => say("desk.newProject.found", { n: systems.length }));
    shown = { title: "", systems: [] };
    draw();
  };
  input.addEventListener("input", () => {
    chosen = null; // what is typed is another one until it is found
    draw();
    clearTimeout(timer);
    timer = setTimeout(find, PAUSE);
  });
  world.map.on("singleclick", async (e) => {
    const [x, lat] = maps.toLonLat(e.coordinate);
    const lon = longitude(x);
    world.showPlace([lon, lat]);
    const view = world.map.getView();
    view.animate({ center: e.coordinate, zoom: Math.max(view.getZoom() ?? 0, NEAR), duration: 300 });
    await ask(`lon=${lon}&lat=${lat}`, () => say("desk.newProject.usual", { at: degrees([lon, lat]) }));
    if (!chosen && shown.systems.length) choose(shown.systems[0], false);
  });
  if (input.value) find();
  return () => areaOf(chosen);
}

const areaOf = (system) => system?.box && [system.box.west, system.box.south, system.box.east, system.box.north];

/** The form of a new project. @param {HTMLFormElement} form */
export function newProjectPage(form) {
  const zone = /** @type {HTMLInputElement} */ (form.querySelector("#zone"));
  if (!zone.value) zone.value = Intl.DateTimeFormat().resolvedOptions().timeZone;
  const world = worldMap(/** @type {HTMLElement} */ (document.querySelector("#project-place")));
  areaField(form, world, systemList(form, world));
  form.dataset.ready = "true";
}

/** The settings of a project that is there. @param {HTMLFormElement} form */
export function aboutPage(form) {
  const world = worldMap(/** @type {HTMLElement} */ (document.querySelector("#project-place")));
  areaField(form, world, /** @type {any} */ (undefined));
  form.dataset.ready = "true";
}
