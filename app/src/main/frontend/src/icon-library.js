// A few hundred icons for everyday things, by group and by word. One that is chosen is read as an own icon is, and goes with the look.
import list from "../build/icons.json";
import { h } from "./dom.js";
import { url } from "./look.js";

/** Drawn at once; more of a large group when it is searched. */
const MOST = 240;
/** What people call things, beside the words of the icons themselves. */
const ALSO = { lamp: "street lamp mast lighting", light: "street lamp mast lighting", lantern: "street lamp", drain: "manhole water", sewer: "manhole waste", cover: "manhole", pole: "utility pole power pole", post: "bollard pole", seat: "bench", bin: "waste", litter: "waste", rubbish: "waste", notice: "info board sign", signpost: "sign board", playground: "play structure slide swing", bush: "shrub hedge", stump: "tree stump", parking: "car parked bicycle parked", crossing: "crossing markings", valve: "shutoff", tap: "water tap", well: "well pump", jetty: "pier", mooring: "horn cleat bollard", camera: "security camera", sculpture: "sculpture statue" };

let read = null;
const icons = () => (read ??= fetch(new URL(list, import.meta.url)).then((r) => {
  if (!r.ok) throw new Error("The icons could not be read.");
  return r.json();
}));

/** Which icons have a word, or the words that stand for it. */
export function found(all, text, group) {
  const words = text.toLowerCase().split(/\s+/).filter(Boolean);
  const has = (icon, w) => icon.words.includes(w) || (ALSO[w] ?? "").split(" ").some((a) => a && icon.words.split(" ").includes(a));
  return all.filter((i) => (!group || i.groups.includes(group)) && words.every((w) => has(i, w)));
}

/** Opens the icons; `pick({label, svg})` hears the one that is chosen. */
export async function openIconLibrary(pick) {
  const all = await icons();
  const groups = [...new Set(all.flatMap((i) => i.groups))].sort();
  const search = h("input", { type: "search", class: "flex-1", placeholder: "tree, hydrant, bench, pole …", "aria-label": "Find an icon by word", oninput: () => draw() });
  const group = h("select", { "aria-label": "Group of icons", onchange: () => draw() }, h("option", { value: "" }, "all groups"), groups.map((g) => h("option", { value: g }, g)));
  const grid = h("div", { class: "icon-grid named max-h-[52vh] overflow-y-auto", role: "group", "aria-label": "Icons" });
  const said = h("p", { class: "quiet mt-2", role: "status" });
  const dialog = h("dialog", { class: "m-auto w-[760px] rounded border border-slate p-4", id: "icon-library", "aria-label": "More icons" },
    h("div", { class: "flex items-center gap-2 mb-2" }, h("h2", { class: "flex-1" }, "More icons"), h("button", { type: "button", class: "plain", onclick: () => dialog.close() }, "Close")),
    h("div", { class: "flex gap-2 mb-2" }, search, group), grid, said);
  const draw = () => {
    const hits = found(all, search.value, group.value);
    grid.replaceChildren(...hits.slice(0, MOST).map((i) => h("button", { type: "button", title: i.label, "aria-label": i.label, onclick: () => {
      dialog.close();
      pick(i);
    } }, h("img", { src: url(i.svg), alt: "", width: 30, height: 30 }), h("span", {}, i.label))));
    said.textContent = hits.length === 0 ? "No icon is found so; try another word, or bring in an SVG of your own." : `${hits.length} ${hits.length === 1 ? "icon" : "icons"}${hits.length > MOST ? `, the first ${MOST} are shown` : ""}.`;
  };
  dialog.addEventListener("close", () => dialog.remove());
  document.body.append(dialog);
  draw();
  dialog.showModal();
  search.focus();
}
