// Before an edition is published: how the features of the layer, the trials and the visits that came in would fare under it.
import { say, words } from "../../shell/say.js";
import { getJson, post } from "../../shell/server.js";
import { day } from "../../shell/styles.js";
import { drawn, html, nothing } from "../../shell/view.js";
import { add, Dry, nothingYet } from "./dry.js";
import { KIND } from "./proofing.js";

/** So many failing features or visits are named of a rule. */
const NAMED = 5;

/** Runs the draft over the visits that came in, lot by lot. */
async function received(state) {
  const all = nothingYet();
  for (let below = /** @type {string | null} */ (null), more = true; more;) {
    const lot = await post(state.base + "/dry-run/visits", { below });
    if (!lot.report) return;
    add(all, lot);
    Object.assign(all.named, lot.named);
    state.visits = all;
    state.answered();
    below = lot.next;
    more = below !== null;
  }
}

/** Those that fail each rule, the most first. */
function failing(state, all, nameOf) {
  const one = (f) => {
    const some = f.features.slice(0, NAMED).map(nameOf);
    const more = f.count > some.length ? say("desk.rule.andMore", { n: f.count - some.length }) : "";
    return html`<li>
      <b>${f.count}</b> ${state.labels.get(f.question) ?? f.question}: ${f.message} <span class="chip">${say(KIND[f.kind])}</span>
      <span class="quiet">${some.map((s, i) => html`${i ? ", " : ""}${s}`)} ${more}</span>
    </li>`;
  };
  return html`<ul class="list-disc ps-5">
    ${[...all.failing.values()].sort((a, b) => b.count - a.count).map(one)}
  </ul>`;
}

function ofFeatures(state) {
  const { dry, edition, layer } = state;
  if (!layer) return nothing;
  const r = dry.result;
  if (!r)
    return html`<p>
      <button type="button" ?disabled=${dry.running} @click=${() => dry.run()}>${say("desk.dry.run")}</button>
    </p>`;
  return html`<h3>${say("desk.dry.passed", { n: r.passed, of: r.features })}</h3>
    ${dry.running ? html`<p role="status">${say("desk.dry.running", { n: r.features })}</p>` : nothing}
    ${edition && !dry.running ? html`<p>${say("desk.dry.against", { better: r.better, worse: r.worse, n: edition })}</p>` : nothing}
    ${failing(state, r, (id) => r.named[id]?.caption || say("desk.noCaption"))}`;
}

function ofTrials({ trials, workshop }) {
  if (!trials?.length) return nothing;
  const other = trials.filter((t) => t.differences.length);
  if (!other.length) return html`<h3 class="mt-2" id="publish-trials">${say("desk.trial.allAsExpected", { n: trials.length })}</h3>`;
  return html`<h3 class="mt-2" id="publish-trials">${say("desk.trial.someOther", { n: other.length, of: trials.length })}</h3>
    <ul class="list-disc ps-5">
      ${other.map(
        (t) =>
          html`<li>
            <b>${t.name}</b>
            <ul>
              ${t.differences.map((d) => html`<li>${d.label} ${words(d.said)}</li>`)}
            </ul>
          </li>`,
      )}
    </ul>
    <p><a href=${workshop}>${say("desk.trial.mend")}</a></p>`;
}

function ofVisits(state) {
  const { visits, project } = state;
  if (!visits || !visits.of) return nothing;
  const held = visits.features - visits.passed;
  const named = (id) => {
    const v = visits.named[id];
    if (!v) return say("desk.noCaption");
    const name = say("desk.dry.visitOf", { caption: v.caption || say("desk.form.newFeature"), day: day(v.endedAt) });
    return html`<a href="/p/${project}/hand-ins/${id}">${name}</a>`;
  };
  return html`<h3 class="mt-2" id="publish-visits">${say("desk.dry.visits", { n: held, of: visits.features })}</h3>
    ${visits.features < visits.of ? html`<p role="status">${say("desk.dry.running", { n: visits.features })}</p>` : nothing}
    ${held ? html`<p class="quiet">${say("desk.dry.visitsStay")}</p>` : nothing} ${failing(state, visits, named)}`;
}

/** @param {HTMLElement} box */
export async function publishingPage(box) {
  const { base = "", project = "", workshop = "" } = box.dataset;
  /** @type {any} */
  const state = { base, project, workshop, failure: "", isSound: true, builds: true, visits: null, trials: null, answered: () => draw() };
  const dry = new Dry(state);
  const { form, revision, features, layer, edition } = await getJson(base);
  const labels = new Map(form.sections.flatMap((s) => [[s.name, s.title], ...s.questions.map((q) => [q.name, q.label])]));
  Object.assign(state, { dry, revision, features, layer, edition, labels });
  const view = () => html`
    ${state.failure ? html`<p class="problem">${state.failure}</p>` : nothing} ${ofFeatures(state)} ${ofTrials(state)} ${ofVisits(state)}
  `;
  const draw = drawn(box, view);
  draw();
  dry.changed(); // a layer that is not too large is run by itself
  const asked = [getJson(base + "/trials").then(({ trials }) => (state.trials = trials)), received(state)];
  for (const one of asked) one.catch((e) => (state.failure = e.message)).finally(draw);
}
