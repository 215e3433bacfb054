// A form file that came by mail or on a stick: opened on the device, shown as what it is, used in an open round. Its visits wait until the project has that form.
import { loadEngine } from "../shell/engine.js";
import { inWords, say } from "../shell/say.js";
import { Failure, getJson } from "../shell/server.js";
import { ALLOWS, VISIT } from "../shell/states.js";
import { html, nothing } from "../shell/view.js";
import { book, tell } from "./book.js";
import { show, showView } from "./frame.js";
import { open, sha256 } from "./pack.js";
import * as store from "./store.js";
import { bind } from "./visits.js";

/** A form file has at most so many bytes: as at the office. */
const MOST_BYTES = 8_000_000;
const KEY = "form-files";

/**
 * @typedef {{hash: string, work: string, title: string, round: string, layer: string, person: string}} FormFile
 * `hash`: of the form as core writes it, by which the office knows it again; `work`: of the part that visits are begun with
 */

const hashOf = async (text) => sha256(new TextEncoder().encode(text));

/** The form files that a person uses in a round here. @param {string} round @returns {Promise<FormFile[]>} */
export async function formFiles(round) {
  const all = /** @type {FormFile[]} */ ((await store.get("meta", KEY)) ?? []);
  return all.filter((f) => f.person === book.person && f.round === round);
}

/** The way to a form file. */
export const formFileButton = () =>
  html`<p>
    <label class="button" id="open-form-file"
      >${say("day.formFile.open")}<input type="file" class="sr-only" accept=".json,application/json" @change=${(e) => chosen(e.target)}
    /></label>
  </p>`;

async function chosen(input) {
  const [file] = input.files;
  input.value = "";
  if (file) await openFormFile(file);
}

/** Opens a file: what it is, or why it is none. @param {File} file */
export async function openFormFile(file) {
  const refuse = (why) => {
    tell("problem", say("day.formFile.none", { name: file.name, why }));
    return show("today");
  };
  if (file.size > MOST_BYTES) return refuse(say("day.formFile.tooLarge", { mb: MOST_BYTES / 1_000_000 }));
  const engine = await loadEngine();
  const packs = book.packs.filter((p) => p.plan.round.allows === ALLOWS.NEW);
  const layers = Object.fromEntries(packs.flatMap((p) => p.layers.map((l) => [l.layer, l.schema])));
  const read = inWords(engine.formFile(await file.text(), JSON.stringify(layers)));
  if (read.why) return refuse(read.why);
  return showView(formShown(read, packs));
}

/** What a form file is, and where it can be used. */
function formShown(read, packs) {
  let round = packs.at(-1)?.round ?? "";
  const use = async () => {
    await keep(read, round);
    book.round = packs.find((p) => p.round === round) ?? book.round;
    tell("done", say("day.formFile.kept", { title: read.title }));
    await show("stops");
  };
  const problems = html`<div class="problem">
    <p>${say("day.formFile.cant")}</p>
    <ul>
      ${read.problems.map((p) => html`<li>${p.message}</li>`)}
    </ul>
  </div>`;
  return html`<section class="card" id="form-file">
    <h2>${read.title}</h2>
    ${read.purpose ? html`<p>${read.purpose}</p>` : nothing}
    <p class="quiet">${say("day.formFile.holds", { n: read.questions })}</p>
    ${read.unknown.length ? html`<p class="told">${say("day.formFile.unknown", { members: read.unknown.join(", ") })}</p>` : nothing}
    ${
      read.problems.length
        ? problems
        : packs.length === 0
          ? html`<p class="told">${say("day.formFile.noRound")}</p>`
          : html`<p>${say("day.formFile.waits")}</p>
              <label
                >${say("day.formFile.round")}
                <select id="form-file-round" @change=${(e) => (round = e.target.value)}>
                  ${packs.map((p) => html`<option value=${p.round} .selected=${p.round === round}>${p.plan.round.name}</option>`)}
                </select></label
              >
              <p class="q-answer">
                <button type="button" class="main" id="use-form-file" @click=${use}>${say("day.formFile.use")}</button>
              </p>`
    }
    <p><button type="button" class="plain" @click=${() => show("today")}>${say("day.formFile.leave")}</button></p>
  </section>`;
}

async function keep(read, round) {
  const pack = await open(round);
  const hash = await hashOf(read.canonical);
  // the project's system is that of the round's own forms
  const first = pack.plan.forms[0] && JSON.parse(await store.get("parts", pack.parts["form-" + pack.plan.forms[0].id]));
  const text = JSON.stringify({
    id: "",
    system: first?.system,
    layer: { id: read.layer, name: read.title },
    edition: 0,
    form: read.form,
    schema: read.schema,
  });
  const work = await hashOf(text);
  await store.put("parts", text, work);
  const others = ((await store.get("meta", KEY)) ?? []).filter((f) => f.hash !== hash || f.round !== round || f.person !== book.person);
  await store.put("meta", [{ hash, work, title: read.title, round, layer: read.layer, person: book.person }, ...others], KEY);
}

/** Asks the office whether the project has the forms by now that visits wait for; these can be handed in then. */
export async function bindFormFiles() {
  const waiting = (await store.all("visits")).filter(
    (v) => v.person === book.person && v.formFile && !v.form && v.status === VISIT.COMPLETE,
  );
  for (const key of new Set(waiting.map((v) => v.round + "/" + v.formFile))) {
    const [round, hash] = key.split("/");
    const pack = await open(round);
    if (!pack) continue; // it left this device: when the round is taken out again they go on
    try {
      /** @type {import("../../types/border").PackWork} */
      const work = await getJson(`/api/day/rounds/${round}/form-files/${hash}`);
      const text = JSON.stringify(work);
      const part = await hashOf(text);
      await store.put("parts", text, part);
      for (const v of waiting) if (v.round === round && v.formFile === hash) await store.put("visits", await bind(v, pack, work, part));
    } catch (e) {
      if (!(e instanceof Failure)) throw e; // it is asked again at the next contact
    }
  }
}
