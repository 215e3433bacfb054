// The day book: one page that works without a network. Views are drawn from what the device keeps.
import { STOP, VISIT } from "./states.js";
import { Failure, request } from "./api.js";
import { h } from "./dom.js";
import { currentFix, watchPosition } from "./fix.js";
import { loadEngine } from "./engine.js";
import { open as openPack, takeOut } from "./pack.js";
import { bytes, metres, when } from "./format.js";
import { stopPage } from "./stop-page.js";
import * as store from "./store.js";
import { fillSymbols, symbol } from "./symbols.js";
import { carried, contact, handIn, RULE, tryAgain, waitingForCopy } from "./hand-in.js";
import { openVisit } from "./visits.js";

const root = document.getElementById("day");
const state = { view: "today", me: null, person: null, packs: [], visits: [], message: null, round: null, busy: "" };
let leave = () => {};

const TABS = [["today", "Today"], ["stops", "Stops"], ["map", "Map"], ["carried", "Carried"], ["kit", "Kit"]];

async function refresh() {
  try {
    state.me = await (await request("/api/day/me")).json();
    if (state.person && state.person !== state.me.person) state.message = { kind: "told", text: `You are signed in as ${state.me.person}. What ${state.person} keeps on this device stays here.` };
    state.person = state.me.person;
    await store.put("meta", state.person, "person");
    await store.put("meta", state.me.rounds, "rounds:" + state.person);
    const again = await contact(state.me);
    if (again) say("told", again === 1 ? "The office went back to an older copy of its store and does not have one visit any more. It is carried again; hand it in once more." : `The office went back to an older copy of its store and does not have ${again} visits any more. They are carried again; hand them in once more.`);
    state.offline = false;
    state.signedOut = false;
  } catch (e) {
    if (!(e instanceof Failure) && !(e instanceof store.StoreFull)) throw e;
    state.signedOut = e.status === 401;
    state.offline = e.status === 0;
    if (e.status && e.status !== 401) state.message = { kind: "problem", text: e.message };
  }
}

async function load() {
  state.person ??= await store.get("meta", "person");
  state.rounds = state.me?.rounds ?? (await store.get("meta", "rounds:" + state.person)) ?? [];
  const packs = (await store.all("packs")).filter((p) => p.person === state.person);
  state.packs = await Promise.all(packs.map((p) => openPack(p.round)));
  state.visits = (await store.all("visits")).filter((v) => v.person === state.person);
  state.round = state.packs.find((p) => p.round === state.round?.round) ?? state.packs.at(-1) ?? null;
}

/** The state of a stop as this device knows it. */
function stopState(pack, featureId) {
  const v = state.visits.find((x) => x.round === pack.round && x.feature === featureId);
  if (v?.office?.state === VISIT.SENT_BACK && v.status !== VISIT.COMPLETE) return STOP.SENT_BACK;
  if (v) return v.status === VISIT.BEGUN ? STOP.STARTED : STOP.DONE;
  const known = state.rounds.find((r) => r.id === pack.round)?.stops.find((s) => s.feature === featureId);
  return known?.state ?? STOP.TO_DO;
}

function say(kind, text) {
  state.message = { kind, text };
}

function message() {
  if (!state.message) return "";
  const { kind, text } = state.message;
  return h("div", { class: kind, role: kind === "problem" ? "alert" : "status" }, text);
}

async function show(view) {
  leave();
  leave = () => {};
  state.view = view;
  await load();
  const body = h("div", { class: "day-body" });
  const c = await carried(state.person);
  const count = c.visits.length + c.refused.length + c.photos.length;
  const head = h("header", { class: "day-head" }, h("h1", {}, TABS.find((t) => t[0] === view)[1]), h("span", { class: "quiet-on-dark" }, state.person ?? "", state.offline || !navigator.onLine ? " · no link" : ""));
  const tabs = h("nav", { class: "day-foot day-tabs", "aria-label": "Day book" }, TABS.map(([key, label]) => h("button", { type: "button", "aria-current": String(key === view), onclick: () => show(key) }, label, key === "carried" && count > 0 ? h("span", { class: "count needs" }, String(count)) : "")));
  root.replaceChildren(head, body, tabs);
  body.append(message());
  state.message = null;
  await { today, stops, map, carried: carriedView, kit }[view](body);
  fillSymbols(root);
}

function signInNote() {
  return h("div", { class: "told" }, h("p", {}, "You are not signed in. What this device keeps is safe, and you can go on working; to take a round out or hand in, sign in."), h("p", {}, h("a", { class: "button main", href: "/sign-in?next=/day" }, "Sign in")));
}

async function today(body) {
  if (state.signedOut) body.append(signInNote());
  if (!state.person) {
    if (state.offline) body.append(h("p", {}, "There is no link, and no round was taken out on this device yet. Open the day book once where there is a network."));
    return;
  }
  if (state.rounds.length === 0) body.append(h("p", {}, "No round is planned for you. When the office plans one, it appears here at the next contact."));
  for (const r of state.rounds) body.append(roundCard(r, state.packs.find((p) => p.round === r.id)));
}

function roundCard(r, pack) {
  const done = pack ? pack.features.features.filter((f) => [STOP.DONE, STOP.NO_ACCESS, STOP.GONE].includes(stopState(pack, f.id))).length : r.stops.filter((s) => s.state === STOP.DONE).length;
  const progress = h("p", { class: "quiet", role: "status" });
  const take = h("button", { type: "button", class: pack ? "" : "main", onclick: () => takeRound(r, take, progress) }, pack ? "Fetch what changed" : "Take this round offline");
  return h("article", { class: "card", "data-round": r.id },
    h("h2", {}, r.name),
    r.note && h("p", {}, r.note),
    h("p", { class: "quiet" }, `${done} of ${r.stops.length} stops done`, r.due ? ` · due ${r.due}` : ""),
    pack && h("p", { class: "quiet" }, `On this device: ${pack.features.features.length} features, ${Object.keys(pack.last).length} past visits, edition ${pack.work.edition} of ${pack.work.form.title}; taken ${when(pack.takenAt)}.`),
    pack && stale(pack),
    h("p", { class: "q-answer" }, pack && h("button", { type: "button", class: "main", onclick: () => { state.round = pack; show("stops"); } }, "Go to the stops"), take),
    progress);
}

function stale(pack) {
  const days = Math.floor((Date.now() - Date.parse(pack.takenAt)) / 86400000);
  return days >= 7 && h("p", { class: "told" }, `Taken out ${days} days ago: values on the layer may have changed since. Visits can go on all the same.`);
}

async function takeRound(r, button, progress) {
  button.disabled = true;
  try {
    const pack = await takeOut(r.id, state.person, (have, all) => { progress.textContent = `${bytes(have)} of ${bytes(all)}`; });
    state.round = pack;
    say("done", `“${r.name}” is on this device: ${pack.features.features.length} features, ${Object.keys(pack.last).length} past visits. You can go offline.`);
  } catch (e) {
    if (e instanceof store.StoreFull) say("problem", "The device's store is full. The round was not taken out; everything saved before is still here. Hand in what is carried, or free space on the device, then take it out again.");
    else if (e instanceof Failure && e.status === 401) state.signedOut = true;
    else say("problem", e instanceof Failure && e.status === 0 ? "The link broke off. What has arrived of the pack is kept; take it out again and it goes on from there." : e.message);
  }
  await show("today");
}


function noRound(body) {
  if (state.round) return false;
  body.append(h("p", {}, "No round is on this device. Take one out under Today, while there is a network."));
  return true;
}

async function stops(body) {
  if (noRound(body)) return;
  const pack = state.round;
  const engine = await loadEngine();
  const list = engine.stops(JSON.stringify(pack.features));
  const byId = new Map(pack.features.features.map((f) => [f.id, f]));
  const how = h("p", { class: "quiet" });
  const find = h("input", { type: "search", class: "w-full", placeholder: "Tag or name", "aria-label": "Find a stop by tag or name", oninput: () => draw() });
  const rows = h("ol", { class: "flex flex-col gap-2", id: "stop-list" });
  body.append(h("h2", {}, pack.work.round.name), pack.work.round.note ? h("p", { class: "told" }, pack.work.round.note) : "", h("div", { class: "q-answer" }, find), how, rows);
  function draw() {
    const fix = currentFix();
    const seen = fix ? JSON.parse(list.from(fix.lon, fix.lat)) : pack.features.features.map((f) => ({ id: f.id }));
    how.textContent = fix ? `Nearest first, from where you are (±${Math.round(fix.accuracy)} m)` : "In the order of the round: the device has not given a position yet";
    const wanted = find.value.trim().toLowerCase();
    rows.replaceChildren(...seen.filter((s) => byId.get(s.id).caption.toLowerCase().includes(wanted)).map((s) => stopRow(pack, byId.get(s.id), s)));
  }
  leave = watchPosition(draw);
  draw();
}

function stopRow(pack, feature, seen) {
  const what = stopState(pack, feature.id);
  const arrow = seen.bearingDeg === undefined ? "" : turned(seen.bearingDeg);
  return h("li", {}, h("button", { type: "button", class: "stop", "data-stop": feature.id, onclick: () => openStop(pack, feature) }, symbol(what), h("span", {}, h("strong", {}, feature.caption), h("span", { class: "quiet" }, what)), h("span", { class: "far" }, seen.distanceM === undefined ? "" : metres(seen.distanceM), arrow)));
}

function turned(degrees) {
  const s = symbol("here");
  s.setAttribute("class", "symbol");
  s.firstChild.setAttribute("transform", `rotate(${Math.round(degrees)} 12 12)`);
  return h("span", { title: `${Math.round(degrees)}° from north` }, s);
}

async function map(body) {
  if (noRound(body)) return;
  const pack = state.round;
  const maps = await import("./map.js");
  const target = h("div", { class: "map h-[calc(100dvh-150px)]", id: "day-map", "aria-label": "Map of the stops; the list under Stops opens the same ones" });
  body.append(target);
  const m = maps.makeMap(target);
  await (await import("./day-map.js")).projectMap(m, pack);
  const layer = maps.stopLayer(m, (id) => stopState(pack, id));
  for (const f of pack.features.features) {
    if (!f.geometry) continue;
    const drawn = maps.format.readFeature({ type: "Feature", id: f.id, geometry: f.geometry, properties: { caption: f.caption } });
    layer.getSource().addFeature(drawn);
  }
  maps.show(m, layer.getSource().getExtent());
  m.on("singleclick", (e) => {
    const hit = m.forEachFeatureAtPixel(e.pixel, (f) => f, { layerFilter: (l) => l === layer, hitTolerance: 14 });
    if (hit) openStop(pack, pack.features.features.find((f) => f.id === hit.getId()));
  });
  const own = maps.ownPosition(m);
  leave = watchPosition(own);
}

async function openStop(pack, feature) {
  leave();
  const lock = await holdStop(pack.round + feature.id);
  if (!lock) {
    say("told", `${feature.caption} is open in another window of this device. Go on there, or close it first.`);
    return show("stops");
  }
  const existing = (await store.all("visits")).filter((v) => v.person === state.person && v.round === pack.round && v.feature === feature.id && !v.light && (v.status !== VISIT.HANDED_IN || v.office?.state === VISIT.SENT_BACK)).at(-1);
  const handed = state.visits.find((v) => v.round === pack.round && v.feature === feature.id && v.status === VISIT.HANDED_IN && v.office?.state !== VISIT.SENT_BACK);
  if (!existing && handed) {
    lock();
    say("told", `${feature.caption} is handed in already (${handed.office?.state ?? VISIT.WAITING}). A mended visit can follow when the office sends it back.`);
    return show("stops");
  }
  const visit = await openVisit(pack, feature, existing);
  leave = await stopPage({ root, visit, release: lock, leave: (message) => { state.message = message ?? null; return show("stops"); } });
}

/** One window at a time may fill a stop. Gives the function that lets it go, or null when another window has it. */
function holdStop(name) {
  if (!navigator.locks) return Promise.resolve(() => {});
  return new Promise((resolve) => {
    navigator.locks.request("stop-" + name, { ifAvailable: true }, (lock) => {
      if (!lock) return resolve(null);
      return new Promise((release) => resolve(release));
    });
  });
}

async function carriedView(body) {
  const c = await carried(state.person);
  if (state.signedOut) body.append(signInNote());
  const progress = h("p", { role: "status", id: "progress" });
  const send = h("button", { type: "button", class: "main", id: "hand-in", disabled: c.visits.length + c.photos.length === 0, onclick: () => deliver(send, progress) }, words(c));
  body.append(h("p", {}, send), progress);
  const mine = state.visits.filter((v) => v.status !== VISIT.BEGUN).sort((a, b) => (b.endedAt ?? "").localeCompare(a.endedAt ?? ""));
  if (c.begun.length) body.append(h("p", { class: "quiet" }, `${c.begun.length} visit${c.begun.length === 1 ? " is" : "s are"} begun and not complete; ${c.begun.length === 1 ? "it is" : "they are"} kept here and not handed in yet.`));
  for (const g of (await store.get("meta", "given:" + state.person)) ?? []) body.append(givenCard(g));
  const photos = await store.all("photos");
  body.append(h("ul", { class: "flex flex-col gap-2" }, mine.map((v) => logLine(v, photos.filter((p) => p.visit === v.id)))));
  const still = await waitingForCopy(state.person);
  body.append(h("p", { class: "quiet", id: "rule" }, RULE, still ? ` ${still === 1 ? "One photo waits" : `${still} photos wait`} for the next copy.` : ""));
}

/** A text that the office could not read and asks this person to look into. */
function givenCard(g) {
  return h("div", { class: "told", "data-given": g.id }, h("p", {}, h("strong", {}, "For you to look into: "), `something handed in by ${g.from}, ${when(g.at)}, could not be read as a visit: ${g.reason}.`), g.note ? h("p", {}, `The office says: ${g.note}`) : "");
}

function logLine(v, own) {
  const what = v.status === VISIT.COMPLETE ? "carried" : v.office?.clash ? "clash" : v.office?.state ?? VISIT.WAITING;
  const took = v.light ? v.took : own.length;
  const there = v.light ? v.took : own.filter((p) => p.sent).length;
  return h("li", { class: "card flex gap-3 items-center", "data-visit": v.id }, symbol(what),
    h("div", {}, h("strong", {}, v.caption), h("p", { class: "quiet" }, what, took ? ` · ${there} of ${took} photos at the office` : "", ` · ${when(v.endedAt)}`),
      v.office?.reason ? h("p", {}, v.office.reason) : "",
      v.refused ? h("div", { class: "problem" }, h("p", {}, v.refused), h("button", { type: "button", onclick: async () => { await tryAgain(v.id); await show("carried"); } }, "Try it again")) : ""));
}

function words(c) {
  if (c.visits.length + c.photos.length === 0) return "Nothing to hand in";
  const parts = [];
  if (c.visits.length) parts.push(`${c.visits.length} visit${c.visits.length === 1 ? "" : "s"}`);
  if (c.photos.length) parts.push(`${c.photos.length} photo${c.photos.length === 1 ? "" : "s"}`);
  return "Hand in " + parts.join(" and ");
}

async function deliver(button, progress) {
  button.disabled = true;
  try {
    await refresh();
    if (state.signedOut) say("problem", "You are not signed in any more. Nothing on this device is lost. Sign in again, then hand in.");
    else if (state.offline) say("problem", "There is no link to the office right now. Nothing is lost; hand in when there is.");
    else {
      const n = await handIn(state.me, (t) => { progress.textContent = t; });
      say(n.refused ? "problem" : "done", `Handed in: ${n.visits} visit${n.visits === 1 ? "" : "s"}, ${n.photos} photo${n.photos === 1 ? "" : "s"}.` + (n.refused ? ` ${n.refused === 1 ? "One visit was" : `${n.refused} visits were`} refused and stay${n.refused === 1 ? "s" : ""} here with the reason.` : ""));
    }
  } catch (e) {
    if (e instanceof Failure) {
      state.signedOut = e.status === 401;
      say("problem", e.message);
    } else if (e instanceof store.StoreFull) say("problem", "The device's store is full, so the office's answer could not be noted. Free some space and hand in again; the office takes each visit only once.");
    else throw e;
  }
  await show("carried");
}

async function kit(body) {
  const r = await store.room();
  const fix = currentFix();
  const sun = document.documentElement.classList.contains("sun");
  body.append(
    h("dl", { class: "card flex flex-col gap-3" },
      h("div", {}, h("dt", {}, "Receiver"), h("dd", { class: "quiet" }, fix ? `the device's own, ±${Math.round(fix.accuracy)} m` : "no position yet; allow this page to know where the device is")),
      h("div", {}, h("dt", {}, "Store"), h("dd", { class: "quiet" }, r ? `${bytes(r.used)} used, ${bytes(r.left)} left` : "the browser does not tell")),
      h("div", {}, h("dt", {}, "Link"), h("dd", { class: "quiet" }, navigator.onLine ? (state.offline ? "the office can't be reached" : "there is a network") : "none"))),
    h("p", {}, h("button", { type: "button", "aria-pressed": String(sun), onclick: () => { document.documentElement.classList.toggle("sun"); localStorage.setItem("whinridge-sun", String(!sun)); show("kit"); } }, sun ? "Leave sun mode" : "Sun mode")));
}

addEventListener("error", (e) => failed(e.message));
addEventListener("unhandledrejection", (e) => failed(e.reason?.message ?? String(e.reason)));
function failed(text) {
  console.error(text);
  const box = document.getElementById("failed");
  box.hidden = false;
  box.textContent = `Something failed here that should not: ${text}. What was kept on this device is still here. Load the page again.`;
}

if (localStorage.getItem("whinridge-sun") === "true") document.documentElement.classList.add("sun");
if ("serviceWorker" in navigator) navigator.serviceWorker.register("/sw.js", { scope: "/day" });
watchPosition(() => {});
await refresh();
await show("today");
