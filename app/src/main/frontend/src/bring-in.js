// Bringing files in: resumable upload, progress of the job, the report with its maps.
import { Upload } from "tus-js-client";
import { post, request, token } from "./api.js";
import { h } from "./dom.js";
import * as maps from "./map.js";
import { systemField } from "./systems.js";

const CHUNK = 4 * 1024 * 1024;
const size = (n) => (n < 1e6 ? `${Math.max(1, Math.round(n / 1e3))} kB` : `${(n / 1e6).toFixed(1)} MB`);

/** Files of a dropped entry, folders opened. */
async function filesOf(entry, path = "") {
  if (entry.isFile) {
    const file = await new Promise((ok, no) => entry.file(ok, no));
    return [{ file, name: path + file.name }];
  }
  const reader = entry.createReader();
  const out = [];
  for (;;) {
    const some = await new Promise((ok, no) => reader.readEntries(ok, no));
    if (some.length === 0) return out;
    for (const e of some) out.push(...(await filesOf(e, path + entry.name + "/")));
  }
}

/** Choosing files: they are uploaded one after the other, and go on after a cut. */
export function choosePage(form) {
  const { project } = form.dataset;
  const drop = form.querySelector("#drop");
  const said = form.querySelector("#upload-said");
  const stop = form.querySelector("#upload-stop");
  const problem = form.querySelector("#upload-problem");
  let chosen = [];
  let running = null;
  const show = () => {
    const list = chosen.slice(0, 12).map((c) => h("li", {}, h("span", {}, c.name), h("span", { class: "quiet" }, " · " + size(c.file.size))));
    if (chosen.length > 12) list.push(h("li", { class: "quiet" }, `and ${chosen.length - 12} more`));
    form.querySelector("#chosen").replaceChildren(...list);
    form.querySelector("#file").required = chosen.length === 0;
  };
  const take = (list) => {
    chosen = [...list].filter((f) => f.size > 0 || f.type !== "").map((file) => ({ file, name: file.webkitRelativePath || file.name }));
    show();
  };
  form.querySelector("#file").addEventListener("change", (e) => take(e.target.files));
  form.querySelector("#folder").addEventListener("change", (e) => take(e.target.files));
  form.addEventListener("dragover", (e) => {
    e.preventDefault();
    drop.dataset.over = "true";
  });
  form.addEventListener("dragleave", () => delete drop.dataset.over);
  form.addEventListener("drop", async (e) => {
    e.preventDefault();
    delete drop.dataset.over;
    const entries = [...e.dataTransfer.items].map((i) => i.webkitGetAsEntry?.()).filter(Boolean);
    chosen = entries.length > 0 ? (await Promise.all(entries.map((x) => filesOf(x)))).flat() : [...e.dataTransfer.files].map((file) => ({ file, name: file.name }));
    show();
  });

  const send = (lot, c, progress) =>
    new Promise((ok, no) => {
      running = new Upload(c.file, {
        endpoint: `/api/p/${project}/bring-in/uploads`,
        chunkSize: CHUNK,
        retryDelays: [500, 1000, 3000, 5000, 10000, 20000],
        metadata: { lot, name: c.name },
        headers: token(),
        storeFingerprintForResuming: false,
        onChunkComplete: (_, accepted) => progress(accepted),
        onError: no,
        onSuccess: ok,
      });
      running.start();
    });

  stop.addEventListener("click", () => {
    if (stop.dataset.paused) {
      delete stop.dataset.paused;
      stop.textContent = "Pause";
      running.start();
    } else {
      stop.dataset.paused = "true";
      stop.textContent = "Go on";
      running.abort();
    }
  });

  form.addEventListener("submit", async (e) => {
    if (chosen.length === 0) return;
    e.preventDefault();
    problem.hidden = true;
    const button = form.querySelector("button[type=submit]");
    button.disabled = true;
    stop.hidden = false;
    const total = chosen.reduce((n, c) => n + c.file.size, 0);
    let before = 0;
    try {
      const { id, limit } = await post(`/api/p/${project}/bring-in`, {});
      if (total > limit) throw new Error(`The files have ${size(total)} together; at most ${size(limit)} can be brought in at once.`);
      for (const c of chosen) {
        await send(id, c, (n) => (said.textContent = `${size(before + n)} of ${size(total)} are here`));
        before += c.file.size;
      }
      said.textContent = "Opening…";
      location.href = (await post(`/api/p/${project}/bring-in/${id}/inventory`, {})).page;
    } catch (error) {
      problem.textContent = error.originalResponse ? `The upload was refused: ${error.originalResponse.getBody() || error.originalResponse.getStatus()}. Nothing was imported.` : error.message;
      problem.hidden = false;
      button.disabled = false;
      stop.hidden = true;
    }
  });
}

/** How far the job is. */
export function jobPage(box) {
  const number = new Intl.NumberFormat("en");
  const look = async () => {
    try {
      const s = await (await request(box.dataset.state)).json();
      if (s.stage !== "running") return location.reload();
      box.querySelector("#job-doing").textContent = s.doing;
      const bar = box.querySelector("#job-bar");
      if (s.total > 0) bar.value = Math.min(100, (100 * s.done) / s.total);
      else bar.removeAttribute("value");
      box.querySelector("#job-said").textContent = `${s.done > 0 ? number.format(s.done) + (s.total > 0 ? " of " + number.format(s.total) : "") + " · " : ""}${s.seconds} s. This page may be closed; it goes on without it.`;
    } catch (e) {
      box.querySelector("#job-said").textContent = e.message;
    }
    setTimeout(look, 700);
  };
  setTimeout(look, 300);
}

const REPAIRED = new maps.Style({ zIndex: 4, stroke: new maps.Stroke({ color: "#4f7359", width: 2 }), fill: new maps.Fill({ color: "rgba(79,115,89,0.35)" }) });
const BROKEN = new maps.Style({ zIndex: 3, stroke: new maps.Stroke({ color: "#94451f", width: 3, lineDash: [6, 4] }), fill: new maps.Fill({ color: "rgba(148,69,31,0.15)" }) });

async function partOfReport(part, project, lot, basemap) {
  const i = part.dataset.part;
  const target = part.querySelector(".map");
  part.querySelector("select.into").addEventListener("change", (e) => {
    const [how, id] = e.target.value.split(":");
    const to = new URL(location.href);
    to.searchParams.delete("into" + i);
    to.searchParams.delete("target" + i);
    if (id) {
      to.searchParams.set("into" + i, id);
      to.searchParams.set("target" + i, how);
    }
    location.href = to;
  });
  if (!target) return;
  const map = maps.makeMap(target, basemap);
  const drawn = maps.featureLayer(map);
  const plain = drawn.getStyle();
  drawn.setStyle((f, r) => (f.get("repaired") ? REPAIRED : f.get("broken") ? BROKEN : plain(f, r)));
  const input = part.querySelector("input.system");
  const problem = part.querySelector(".system-problem");
  const name = part.querySelector(".system-name");
  const value = (n) => part.querySelector(`select[name="${n}_${i}"]`)?.value ?? "";
  const show = async () => {
    const q = new URLSearchParams({ part: i, system: input.value.trim(), x: value("x"), y: value("y"), wkt: value("wkt"), repair: value("repair") });
    try {
      const data = await (await request(`/api/p/${project}/bring-in/${lot}/preview?${q}`)).json();
      drawn.getSource().clear();
      drawn.getSource().addFeatures(maps.format.readFeatures(data));
      maps.show(map, drawn.getSource().getExtent(), 24);
      problem.textContent = data.problem;
      if (data.system) name.textContent = data.system + ".";
      part.querySelector(".system-accuracy").textContent = data.accuracy;
      part.querySelector(".unsure").hidden = !data.unsure;
    } catch (e) {
      problem.textContent = e.message;
    }
    part.dataset.shown = "true";
  };
  for (const s of part.querySelectorAll("select.place, .repair select")) s.addEventListener("change", show);
  systemField(input, project, show);
  await show();
}

/** The report with its maps; decisions are sent without leaving the page. */
export async function reportPage(form) {
  const { project, lot } = form.dataset;
  const problem = form.querySelector("#decide-problem");
  form.addEventListener("submit", async (e) => {
    if (e.submitter?.hasAttribute("formaction")) return; // a table is to be read otherwise
    e.preventDefault();
    problem.hidden = true;
    try {
      const answer = await request(`/api/p/${project}/bring-in/${lot}/decide`, { method: "POST", body: new URLSearchParams(new FormData(form)), headers: token() });
      location.href = (await answer.json()).page;
    } catch (error) {
      problem.textContent = error.message;
      problem.hidden = false;
    }
  });
  const basemap = await (await request(`/api/p/${project}/basemap`)).json();
  for (const part of form.querySelectorAll(".part")) await partOfReport(part, project, lot, basemap);
  form.dataset.ready = "true";
}
