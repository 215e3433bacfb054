// The page of a form: questions on the left; on the right the live sheet, drawn by the same module and run by the same engine as in the
// day book, filled with a real feature.
import { viewOf } from "../../sheet/known.js";
import { openWords, trail } from "../../sheet/points.js";
import { answering, makeSheet } from "../../sheet/sheet.js";
import { loadEngine } from "../../shell/engine.js";
import { say } from "../../shell/say.js";
import { drawn, html } from "../../shell/view.js";
import { questions, report } from "./questions.js";
import { FormState } from "./state.js";
import { formText } from "./text.js";
import { wiring } from "./wiring.js";

/** The sheet as the day book will show it; gives the function that fills it anew. @param {HTMLElement} box @param {HTMLElement} trailBox @param {any} state */
function liveSheet(box, trailBox, state) {
  let view = /** @type {any} */ ({ sections: [], points: [] });
  const drawTrail = drawn(trailBox, () => html`${trail(view)} ${openWords(view.points)}`);
  return () => {
    const compiled = state.isSound ? state.engine.form(JSON.stringify(state.form), JSON.stringify(state.schema)) : null;
    if (!compiled) return; // the last sound sheet stays in view while a rule is being mended
    const offset = -new Date().getTimezoneOffset();
    const who = { person: say("desk.form.you"), device: say("desk.form.desk"), startedAt: new Date().toISOString(), offset };
    const start = { ...who, edition: state.edition, system: state.system };
    const visit = compiled.visit(JSON.stringify(start), state.proof ? JSON.stringify(state.proof) : "", state.indexes, "");
    const inner = document.createElement("div");
    box.replaceChildren(inner);
    const now = viewOf(visit);
    const draw = () => {
      view = now();
      sheet.draw(view);
      drawTrail.now();
    };
    const sheet = makeSheet(
      inner,
      answering(visit, (deed) => (deed(), draw())),
    );
    draw();
  };
}

/** So often who else is here is asked, in milliseconds. */
const ASKED_EVERY = 4000;

/** Taking back, doing again, the form as text. */
function tools(state) {
  const step = (id, said, deed, key) =>
    html`<button type="button" id=${id} ?disabled=${!said} title=${said} @click=${deed}>${say(key)}</button>`;
  const others = state.others.map((o) =>
    o.question
      ? say("desk.form.otherAt", { person: o.person, label: state.labelOf(o.question) })
      : say("desk.form.otherHere", { person: o.person }),
  );
  return html`<span id="others" role="status" class="quiet self-center">${others.join(" · ")}</span>
    ${step("undo", state.undoSaid, () => state.undo(), "desk.form.undo")}
    ${step("redo", state.redoSaid, () => state.redo(), "desk.form.redo")}
    <button type="button" id="as-text" aria-pressed=${String(state.textShown)} @click=${() => state.showText(!state.textShown)}>
      ${say("desk.form.asText")}
    </button>`;
}

function proofName(state) {
  if (!state.proof) return say("desk.form.noFeatures");
  return say("desk.form.proof", { caption: state.proof.caption || say("desk.noCaption"), n: state.at + 1, of: state.features });
}

/** @param {HTMLElement} box */
export async function formPage(box) {
  const { project = "", form } = box.dataset;
  const part = (id) => /** @type {HTMLElement} */ (box.querySelector("#" + id));
  const title = /** @type {HTMLInputElement} */ (part("title"));
  const publish = /** @type {HTMLButtonElement | null} */ (part("publish"));
  let ready = false;
  /** @type {any} */
  const state = new FormState({
    base: `/api/p/${project}/forms/${form}`,
    project,
    engine: await loadEngine(),
    changed: () => draw(),
    live: () => live(),
  });
  const live = liveSheet(part("live-sheet"), part("live-trail"), state);
  const all = [
    drawn(part("form-report"), () => report(state)),
    drawn(part("wiring"), () => wiring(state)),
    drawn(part("question-list"), () => (state.textShown ? formText(state) : questions(state))),
    drawn(part("form-tools"), () => tools(state)),
  ];
  const draw = () => {
    if (!ready) return;
    all.forEach((one) => one());
    part("stored").textContent = state.stored;
    part("proof-name").textContent = proofName(state);
    if (document.activeElement !== title) title.value = state.form.title;
    if (publish) {
      publish.disabled = !state.isSound;
      publish.textContent = say("desk.form.publish", { n: String(state.edition + 1) });
    }
  };
  title.addEventListener("change", () => state.edit({ op: "title", value: title.value }));
  box.addEventListener("keydown", (e) => {
    if (!(e.ctrlKey || e.metaKey) || e.key.toLowerCase() !== "z" || /** @type {HTMLElement} */ (e.target).closest("input, textarea"))
      return;
    e.preventDefault();
    if (e.shiftKey) state.redo();
    else state.undo();
  });
  part("proof-before").addEventListener("click", () => state.step(-1));
  part("proof-next").addEventListener("click", () => state.step(1));
  ready = true;
  await state.begin();
  const ask = async () => {
    if (document.visibilityState === "visible") await state.news().catch(() => {}); // no link: it is asked again
    setTimeout(ask, ASKED_EVERY);
  };
  setTimeout(ask, ASKED_EVERY);
  box.dataset.ready = "true";
}
