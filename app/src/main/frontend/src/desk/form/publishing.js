// Before an edition is published: how the features of the layer would fare under it, and against the one in use.
import { say } from "../../shell/say.js";
import { getJson } from "../../shell/server.js";
import { drawn, html, nothing } from "../../shell/view.js";
import { Dry } from "./dry.js";
import { KIND } from "./proofing.js";

/** So many failing features are named of a rule. */
const NAMED = 5;

/** @param {HTMLElement} box */
export async function publishingPage(box) {
  const base = box.dataset.base ?? "";
  /** @type {any} */
  const state = { base, failure: "", isSound: true, answered: () => draw() };
  const dry = new Dry(state);
  const { form, revision, features, layer, edition } = await getJson(base);
  Object.assign(state, { revision, features, layer, edition });
  const labels = new Map(form.sections.flatMap((s) => s.questions).map((q) => [q.name, q.label]));
  const failing = (f) => {
    const some = f.features.slice(0, NAMED).map((id) => dry.result.captions[id] || say("desk.noCaption"));
    const more = f.count > some.length ? say("desk.rule.andMore", { n: f.count - some.length }) : "";
    return html`<li>
      <b>${f.count}</b> ${labels.get(f.question) ?? f.question}: ${f.message} <span class="chip">${say(KIND[f.kind])}</span>
      <span class="quiet">${some.join(", ")} ${more}</span>
    </li>`;
  };
  const view = () => {
    if (state.failure) return html`<p class="problem">${state.failure}</p>`;
    const r = dry.result;
    const run = () => dry.run();
    if (!r) return html`<p><button type="button" ?disabled=${dry.running} @click=${run}>${say("desk.dry.run")}</button></p>`;
    return html`<h3>${say("desk.dry.passed", { n: r.passed, of: r.features })}</h3>
      ${dry.running ? html`<p role="status">${say("desk.dry.running", { n: r.features })}</p>` : nothing}
      ${edition && !dry.running ? html`<p>${say("desk.dry.against", { better: r.better, worse: r.worse, n: edition })}</p>` : nothing}
      <ul class="list-disc ps-5">
        ${[...r.failing.values()].sort((a, b) => b.count - a.count).map(failing)}
      </ul>`;
  };
  const draw = drawn(box, view);
  draw();
  dry.changed(); // a layer that is not too large is run by itself
}
