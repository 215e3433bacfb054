// The project's own basemaps: bringing pictures in, taking them away.
import { named } from "../../map/basemaps.js";
import { fileButton } from "../../shell/controls.js";
import { number } from "../../shell/styles.js";
import { say } from "../../shell/say.js";
import { takeAway } from "../../shell/server.js";
import { upload } from "../../shell/upload.js";
import { html, nothing } from "../../shell/view.js";

/** @param {any} state @param {any[]} basemaps */
export function basemapsCard(state, basemaps) {
  const bring = async (file) => {
    const told = (n, of) => {
      state.going = number(n / of, { style: "percent" });
      state.changed();
    };
    const sent = upload(file, { endpoint: `/api/p/${state.project}/basemap-uploads`, metadata: { name: file.name }, told });
    sent.start();
    try {
      await sent.done;
      location.reload();
    } catch (e) {
      state.going = "";
      state.fail(e);
    }
  };
  return html`<div class="card mt-3" id="own-basemaps">
    <h2>${say("desk.map.basemaps")}</h2>
    <ul>
      ${basemaps.filter((b) => b.id !== "none").map((b) => line(state, b))}
    </ul>
    <div class="flex items-center gap-2 mt-2">
      ${fileButton(say("desk.map.bringIn"), ".mbtiles,.gpkg", bring)}<span role="status" class="quiet">${state.going ?? ""}</span>
    </div>
    <p class="quiet text-sm mt-1">${say("desk.map.bringInHow")}</p>
  </div>`;
}

function line(state, b) {
  const away = async () => {
    if (!confirm(say("desk.map.takeAwaySure", { name: b.name }))) return;
    try {
      await takeAway(`/api/p/${state.project}/basemaps/${b.id}`);
      location.reload();
    } catch (e) {
      state.fail(e);
    }
  };
  const button = html`<button type="button" class="plain" @click=${away}>${say("desk.map.takeAway")}</button>`;
  return html`<li class="py-1">
    <div class="flex items-center gap-2"><span class="flex-1">${named(b)}</span>${b.grid ? button : nothing}</div>
    ${b.notes.map((n) => html`<p class="quiet text-sm">${n}</p>`)}
  </li>`;
}
