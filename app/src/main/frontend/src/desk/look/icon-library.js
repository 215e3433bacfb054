// A few hundred icons for everyday things, by group and by word. One that is chosen is read as an own icon is, and goes with the look.
import list from "../../../build/icons.json";
import { url } from "../../map/look.js";
import { options } from "../../shell/controls.js";
import { say } from "../../shell/say.js";
import { drawn, html } from "../../shell/view.js";
import { found } from "./finding.js";

/** Drawn at once; more of a large group when it is searched. */
const MOST = 240;

/** @type {Promise<any[]> | null} */
let read = null;
const icons = () =>
  (read ??= fetch(new URL(/** @type {any} */ (list), import.meta.url)).then((r) => {
    if (!r.ok) throw new Error(say("desk.icons.notRead"));
    return r.json();
  }));

function iconButton(i, pick) {
  return html`<button type="button" title=${i.label} aria-label=${i.label} @click=${() => pick(i)}>
    <img src=${url(i.svg)} alt="" width="30" height="30" /><span>${i.label}</span>
  </button>`;
}

function said(n) {
  if (n === 0) return say("desk.icons.none");
  return n > MOST ? say("desk.icons.first", { n, most: MOST }) : say("desk.icons.count", { n });
}

/** Opens the icons; `pick({label, svg})` hears the one that is chosen. @param {(icon: {label: string, svg: string}) => void} pick */
export async function openIconLibrary(pick) {
  const all = await icons();
  const groups = [...new Set(all.flatMap((i) => i.groups))].sort();
  const dialog = document.createElement("dialog");
  Object.assign(dialog, {
    className: "m-auto w-[760px] rounded border border-slate p-4",
    id: "icon-library",
    ariaLabel: say("desk.icons.title"),
  });
  const wanted = { text: "", group: "" };
  const look = (name) => (e) => {
    wanted[name] = e.target.value;
    draw();
  };
  const chosen = (icon) => {
    dialog.close();
    pick(icon);
  };
  const draw = drawn(dialog, () => {
    const hits = found(all, wanted.text, wanted.group);
    return html`<div class="flex items-center gap-2 mb-2">
        <h2 class="flex-1">${say("desk.icons.title")}</h2>
        <button type="button" class="plain" @click=${() => dialog.close()}>${say("do.close")}</button>
      </div>
      <div class="flex gap-2 mb-2">
        <input
          type="search"
          class="flex-1"
          placeholder=${say("desk.icons.words")}
          aria-label=${say("desk.icons.find")}
          @input=${look("text")}
        />
        <select aria-label=${say("desk.icons.group")} @change=${look("group")}>
          ${options([["", say("desk.icons.allGroups")], ...groups.map((g) => /** @type {[string, string]} */ ([g, g]))], wanted.group)}
        </select>
      </div>
      <div class="icon-grid named max-h-[52vh] overflow-y-auto" role="group" aria-label=${say("desk.icons.icons")}>
        ${hits.slice(0, MOST).map((i) => iconButton(i, chosen))}
      </div>
      <p class="quiet mt-2" role="status">${said(hits.length)}</p>`;
  });
  dialog.addEventListener("close", () => dialog.remove());
  document.body.append(dialog);
  draw.now();
  dialog.showModal();
  /** @type {HTMLInputElement} */ (dialog.querySelector("input")).focus();
}
