// The page of a form: the sheet in the middle, the layer's fields wired to it on the left, what belongs to each question beside it,
// and at the foot the feature with which it is filled.
import { loadEngine } from "../../shell/engine.js";
import { say } from "../../shell/say.js";
import { drawn, html } from "../../shell/view.js";
import { about } from "./about.js";
import { clipboard } from "./clipboard.js";
import { dragging } from "./drag.js";
import { languages } from "./languages.js";
import { proofing } from "./proofing.js";
import { questions } from "./questions.js";
import { report } from "./report.js";
import { shared } from "./shared.js";
import { FormState } from "./state.js";
import { formText } from "./text.js";
import { readBefore } from "./typing.js";
import { wiring } from "./wiring.js";

/** So often who else is here is asked, in milliseconds. */
const ASKED_EVERY = 4000;

/** What can stand in the middle. */
const VIEWS = { sheet: questions, text: formText, languages, about, shared };

/** Taking back, doing again, and what stands in the middle. */
function tools(state) {
  const step = (id, said, deed, key) =>
    html`<button type="button" id=${id} ?disabled=${!said} title=${said} @click=${deed}>${say(key)}</button>`;
  const others = state.others.map((o) =>
    o.question
      ? say("desk.form.otherAt", { person: o.person, label: state.labelOf(o.question) })
      : say("desk.form.otherHere", { person: o.person }),
  );
  const view = (id, name, key) =>
    html`<button
      type="button"
      id=${id}
      aria-pressed=${String(state.view === name)}
      @click=${() => state.showView(state.view === name ? "sheet" : name)}
    >
      ${say(key)}
    </button>`;
  return html`<span id="others" role="status" class="quiet self-center">${others.join(" · ")}</span>
    ${step("undo", state.undoSaid, () => state.undo(), "desk.form.undo")}
    ${step("redo", state.redoSaid, () => state.redo(), "desk.form.redo")} ${view("as-text", "text", "desk.form.asText")}
    ${view("as-languages", "languages", "desk.form.languages")} ${view("as-shared", "shared", "desk.form.shared")}
    ${view("as-about", "about", "desk.form.settings")}`;
}

/** The small map, made when it is first shown. @param {HTMLElement} box @param {any} state */
function proofMap(box, state) {
  /** @type {any} */
  let map = null;
  let asked = "";
  return async () => {
    box.hidden = !state.mapShown;
    if (!state.mapShown) return;
    if (!map) {
      map = {};
      const { ProofMap } = await import("./proof-map.js");
      map = new ProofMap(box, state);
      await map.start();
    }
    const { proof, layer } = state;
    if (layer && proof && asked !== proof.id) {
      asked = proof.id;
      await state.proofs.beside(layer.id, proof).catch(() => {}); // then only the feature itself is there
    }
    map.draw?.();
  };
}

function keys(box, state) {
  box.addEventListener("keydown", (e) => {
    if (!(e.ctrlKey || e.metaKey) || e.key.toLowerCase() !== "z" || /** @type {HTMLElement} */ (e.target).closest("input, textarea"))
      return;
    e.preventDefault();
    if (e.shiftKey) state.redo();
    else state.undo();
  });
}

/** @param {HTMLElement} box */
export async function formPage(box) {
  const { project = "", form } = box.dataset;
  const part = (id) => /** @type {HTMLElement} */ (box.querySelector("#" + id));
  const title = /** @type {HTMLInputElement} */ (part("title"));
  const publish = part("publish");
  let ready = false;
  /** @type {any} */
  const state = new FormState({
    base: `/api/p/${project}/forms/${form}`,
    project,
    engine: await loadEngine(),
    changed: () => draw(),
    answered: () => (sheet(), foot()),
  });
  const sheet = drawn(part("live-sheet"), () => VIEWS[state.view](state));
  const strip = drawn(part("proof"), () => proofing(state));
  const drawMap = proofMap(part("proof-map"), state);
  const foot = () => (strip(), drawMap());
  const all = [
    drawn(part("form-report"), () => report(state)),
    drawn(part("wiring"), () => wiring(state)),
    sheet,
    drawn(part("form-tools"), () => tools(state)),
    foot,
    state.drawTyping,
  ];
  const draw = () => {
    if (!ready) return;
    box.dataset.view = state.view;
    Object.assign(part("live-sheet").dataset, { width: state.how.width, sun: String(state.how.sun) });
    all.forEach((one) => one());
    part("stored").textContent = state.stored;
    if (document.activeElement !== title) title.value = state.form.title;
    if (publish) publish.textContent = say("desk.form.publish", { n: String(state.edition + 1) });
    if (publish) publish.dataset.sound = String(state.isSound);
  };
  title.addEventListener("change", () => state.edit({ op: "title", value: title.value }));
  keys(box, state);
  clipboard(box, state);
  dragging(part("live-sheet"), state);
  ready = true;
  await state.begin();
  const ask = async () => {
    if (document.visibilityState === "visible") await state.news().catch(() => {}); // no link: it is asked again
    setTimeout(ask, ASKED_EVERY);
  };
  setTimeout(ask, ASKED_EVERY);
  readBefore(state);
  box.dataset.ready = "true";
}
