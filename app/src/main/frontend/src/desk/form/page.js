// The page of a form: the sheet in the middle, the layer's fields wired to it on the left, what belongs to each question beside it,
// and at the foot the feature with which it is filled.
import { openWords, trail } from "../../sheet/points.js";
import { loadEngine } from "../../shell/engine.js";
import { say } from "../../shell/say.js";
import { symbol } from "../../shell/symbols.js";
import { drawn, html, nothing } from "../../shell/view.js";
import { about } from "./about.js";
import { clipboard } from "./clipboard.js";
import { dragging } from "./drag.js";
import { languages } from "./languages.js";
import { questions } from "./questions.js";
import { report } from "./report.js";
import { FormState } from "./state.js";
import { formText } from "./text.js";
import { wiring } from "./wiring.js";

/** So often who else is here is asked, in milliseconds. */
const ASKED_EVERY = 4000;

/** What can stand in the middle. */
const VIEWS = { sheet: questions, text: formText, languages, about };

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
    ${view("as-languages", "languages", "desk.form.languages")} ${view("as-about", "about", "desk.form.settings")}`;
}

/** The foot: the real feature with which the sheet is filled, and what is open on it. */
function proof(state) {
  const name = state.proof
    ? say("desk.form.proof", { caption: state.proof.caption || say("desk.noCaption"), n: state.at + 1, of: state.features })
    : say("desk.form.noFeatures");
  const step = (id, by, sign, said) =>
    html`<button
      type="button"
      class="plain"
      id=${id}
      data-key=${by > 0 ? "n" : "p"}
      aria-label=${said}
      ?disabled=${state.features < 2}
      @click=${() => state.step(by)}
    >
      ${symbol(sign)}
    </button>`;
  return html`${step("proof-before", -1, "left", say("desk.form.previousFeature"))}
    <span id="proof-name">${name}</span> ${step("proof-next", 1, "right", say("desk.form.nextFeature"))}
    <span class="trail static!" id="live-trail">${trail(state.live.view)}</span>
    <span id="proof-open">${openWords(state.live.view.points)}</span>
    ${state.isSound || state.questions.length === 0 ? nothing : html`<span class="chip trouble">${say("desk.form.sheetStands")}</span>`}`;
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
  const foot = drawn(part("proof"), () => proof(state));
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
  box.dataset.ready = "true";
}
