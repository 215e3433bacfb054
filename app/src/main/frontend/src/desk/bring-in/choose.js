// Choosing files to bring in: they are uploaded one after the other, and go on after a cut.
import { bytes } from "../../shell/format.js";
import { number } from "../../shell/styles.js";
import { say } from "../../shell/say.js";
import { post } from "../../shell/server.js";
import { upload } from "../../shell/upload.js";
import { html, nothing, render } from "../../shell/view.js";

/** So many chosen files are named. */
const MOST_NAMED = 12;

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

/** What was dropped, files and folders. @param {DataTransfer} dropped */
async function droppedFiles(dropped) {
  const entries = [...dropped.items].map((i) => i.webkitGetAsEntry?.()).filter(Boolean);
  if (entries.length === 0) return [...dropped.files].map((file) => ({ file, name: file.name }));
  return (await Promise.all(entries.map((x) => filesOf(x)))).flat();
}

function chosenList(chosen) {
  const one = (c) => html`<li><span>${c.name}</span><span class="quiet"> · ${bytes(c.file.size)}</span></li>`;
  const more = chosen.length - MOST_NAMED;
  return html`${chosen.slice(0, MOST_NAMED).map(one)}${more > 0 ? html`<li class="quiet">${say("desk.andMore", { n: number(more) })}</li>` : nothing}`;
}

class Bringing {
  /** @type {{file: File, name: string}[]} */
  chosen = [];
  /** @type {ReturnType<typeof upload> | null} */
  running = null;

  /** @param {HTMLFormElement} form */
  constructor(form) {
    this.form = form;
    this.project = form.dataset.project;
    this.part = (/** @type {string} */ id) => /** @type {any} */ (form.querySelector("#" + id));
  }

  take(all) {
    this.chosen = all;
    render(chosenList(all), this.part("chosen"));
    this.part("file").required = all.length === 0;
  }
  takeList(list) {
    const some = [...list].filter((f) => f.size > 0 || f.type !== "");
    this.take(some.map((file) => ({ file, name: file.webkitRelativePath || file.name })));
  }

  async send() {
    const total = this.chosen.reduce((n, c) => n + c.file.size, 0);
    const { id: lot, limit } = await post(`/api/p/${this.project}/bring-in`, {});
    if (total > limit) throw new Error(say("desk.bringIn.tooLarge", { size: bytes(total), most: bytes(limit) }));
    let before = 0;
    for (const { file, name } of this.chosen) {
      const told = (n) => (this.part("upload-said").textContent = say("desk.bringIn.here", { n: bytes(before + n), of: bytes(total) }));
      this.running = upload(file, { endpoint: `/api/p/${this.project}/bring-in/uploads`, metadata: { lot, name }, told });
      this.running.start();
      await this.running.done;
      before += file.size;
    }
    this.part("upload-said").textContent = say("desk.bringIn.opening");
    location.href = (await post(`/api/p/${this.project}/bring-in/${lot}/inventory`, {})).page;
  }

  async submit() {
    const [stop, problem, button] = [
      this.part("upload-stop"),
      this.part("upload-problem"),
      /** @type {any} */ (this.form.querySelector("[type=submit]")),
    ];
    problem.hidden = true;
    button.disabled = true;
    stop.hidden = false;
    try {
      await this.send();
    } catch (e) {
      problem.textContent = e.message;
      problem.hidden = false;
      button.disabled = false;
      stop.hidden = true;
    }
  }

  pause(stop) {
    const paused = stop.toggleAttribute("data-paused");
    stop.textContent = paused ? say("desk.bringIn.goOn") : say("desk.bringIn.pause");
    this.running?.[paused ? "pause" : "start"]();
  }
}

/** @param {HTMLFormElement} form */
export function choosePage(form) {
  const state = new Bringing(form);
  const drop = state.part("drop");
  for (const id of ["file", "folder"]) state.part(id).addEventListener("change", (e) => state.takeList(e.target.files));
  form.addEventListener("dragover", (e) => {
    e.preventDefault();
    drop.dataset.over = "true";
  });
  form.addEventListener("dragleave", () => delete drop.dataset.over);
  form.addEventListener("drop", async (e) => {
    e.preventDefault();
    delete drop.dataset.over;
    state.take(await droppedFiles(/** @type {DataTransfer} */ (e.dataTransfer)));
  });
  state.part("upload-stop").addEventListener("click", (e) => state.pause(e.currentTarget));
  form.addEventListener("submit", (e) => {
    if (state.chosen.length === 0) return;
    e.preventDefault();
    state.submit();
  });
}
