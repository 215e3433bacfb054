// The foot of the workshop: the feature with which the sheet is filled, how it is looked at, and how all features fare.
import { openWords, trail } from "../../sheet/points.js";
import { check, choose } from "../../shell/controls.js";
import { say } from "../../shell/say.js";
import { symbol } from "../../shell/symbols.js";
import { html, nothing } from "../../shell/view.js";
import { trialsAtFoot } from "./trials.js";

/** So many failing features are named at a time. */
const NAMED = 12;

/** @type {Record<string, import("../../shell/say.js").MessageKey>} */
export const KIND = {
  firm: "desk.dry.firm",
  soft: "desk.dry.soft",
  missing: "desk.dry.missing",
  "does not fit": "desk.dry.misfit",
};

function stepping(state) {
  const name = state.trial
    ? say("desk.trial.filledAs", { name: state.trial.name })
    : state.how.fresh
      ? say("desk.form.newFeature")
      : state.proof
        ? say("desk.form.proof", { caption: state.proof.caption || say("desk.noCaption"), n: state.at + 1, of: state.features })
        : say("desk.form.noFeatures");
  const { among } = state;
  const step = (id, by, sign, said) =>
    html`<button
      type="button"
      class="plain"
      id=${id}
      data-key=${by > 0 ? "n" : "p"}
      aria-label=${said}
      ?disabled=${among ? among.ids.length < 2 : state.features < 2}
      @click=${() => state.step(by)}
    >
      ${symbol(sign)}
    </button>`;
  return html`${step("proof-before", -1, "left", say("desk.form.previousFeature"))}
    <span id="proof-name">${name}</span> ${step("proof-next", 1, "right", say("desk.form.nextFeature"))}
    ${
      among
        ? html`<span id="proof-among" class="chip">${say("desk.proof.among", { n: among.of, said: among.said })}</span>
            <button type="button" class="plain" id="proof-all" @click=${() => state.stepAll()}>${say("desk.proof.all")}</button>`
        : nothing
    }
    ${
      state.live.isTried
        ? html`<button type="button" class="plain" id="proof-again" @click=${() => state.startOver()}>
            ${say("desk.form.startOver")}
          </button>`
        : nothing
    }
    <span class="trail static!" id="live-trail">${trail(state.live.view)}</span>
    <span id="proof-open">${openWords(state.live.view.points)}</span>`;
}

/** How the sheet is looked at: as which visit, how wide, in which light and language. */
function looking(state) {
  const { how } = state;
  const put = (more) => state.lookAt(more);
  /** @type {[string, string][]} */
  const widths = [
    ["desk", say("desk.form.widthDesk")],
    ["phone", say("desk.form.widthPhone")],
    ["tablet", say("desk.form.widthTablet")],
  ];
  const languages = [["", say("desk.form.ownLanguage")], ...state.languages.map((l) => [l, l])];
  return html`<details class="proof-how" ?open=${how.open} @toggle=${(e) => (how.open = e.target.open)}>
    <summary id="proof-how">${say("desk.form.lookAtIt")}</summary>
    <div class="flex flex-wrap gap-3 items-center py-1">
      ${choose(say("desk.form.width"), how.width, widths, (width) => put({ width }), { id: "proof-width" })}
      ${languages.length > 1 ? choose(say("desk.form.language"), how.language, /** @type {any} */ (languages), (language) => put({ language }), { id: "proof-language" }) : nothing}
      <label class="flex items-center gap-2"
        >${check(say("desk.form.asNew"), how.fresh, (fresh) => put({ fresh }), { id: "proof-fresh" })}</label
      >
      <label class="flex items-center gap-2"
        >${check(say("desk.form.asOffice"), how.office, (office) => put({ office }), { id: "proof-office" })}</label
      >
      <label class="flex items-center gap-2">${check(say("desk.form.inSun"), how.sun, (sun) => put({ sun }), { id: "proof-sun" })}</label>
    </div>
  </details>`;
}

/** Which features are stepped through. */
function onlySome(state) {
  if (!state.layer) return nothing;
  return html`<details class="proof-how">
    <summary id="proof-only">${say("desk.proof.onlySome")}</summary>
    ${state.ruleBox("proof", state.only, {
      id: "proof-only-rule",
      said: say("desk.proof.onlyWhere"),
      invitation: say("desk.proof.addWhere"),
      list: "",
      type: "condition",
      put: (text) => state.stepWhere(text),
    })}
  </details>`;
}

function failing(state, f) {
  const { dry } = state;
  const open = dry.open === f.key;
  const named = f.features.slice(0, NAMED);
  return html`<li>
    <button type="button" class="plain" data-failing=${f.key} aria-expanded=${String(open)} @click=${() => dry.show(f.key)}>
      <b>${f.count}</b> ${state.labelOf(f.question)}: ${f.message} <span class="chip">${say(KIND[f.kind])}</span>
    </button>
    ${
      open
        ? html`<p class="rule-which">
            ${named.map(
              (id) =>
                html`<button type="button" class="plain" data-feature=${id} @click=${() => state.proofAt(id, f.question)}>
                  ${dry.result.named[id]?.caption || say("desk.noCaption")}
                </button>`,
            )}
            ${f.count > named.length ? html`<span class="quiet">${say("desk.rule.andMore", { n: f.count - named.length })}</span>` : nothing}
            <button type="button" class="plain" data-step-through @click=${() => state.stepAmong(f.message, f.features, f.count)}>
              ${say("desk.proof.stepThrough")}
            </button>
            ${
              state.mapShown
                ? nothing
                : html`<button type="button" class="plain" data-on-map @click=${() => state.turnMap()}>
                    ${say("desk.proof.showOnMap")}
                  </button>`
            }
          </p>`
        : nothing
    }
  </li>`;
}

/** How all features of the layer fare under the draft. */
function dryRun(state) {
  const { dry } = state;
  const r = dry.result;
  if (!state.layer) return nothing;
  const run = html`<button type="button" class="plain" id="dry-run" ?disabled=${dry.running || !state.isSound} @click=${() => dry.run()}>
    ${dry.running ? say("desk.dry.running", { n: r?.features ?? 0 }) : say("desk.dry.run")}
  </button>`;
  if (!r) return run;
  const all = [...r.failing.values()].sort((a, b) => b.count - a.count);
  const against =
    state.edition && (r.better || r.worse) ? say("desk.dry.against", { better: r.better, worse: r.worse, n: state.edition }) : "";
  const part = r.features < r.of && !dry.running ? say("desk.rule.ofFirst", { n: r.features }) : "";
  return html`<details id="dry" ?open=${Boolean(dry.open)}>
    <summary>
      ${say("desk.dry.passed", { n: r.passed, of: r.features })} ${part} ${against}
      ${dry.isNow || dry.running ? nothing : html`<span class="chip">${say("desk.dry.older")}</span>`}
    </summary>
    ${run}
    <ul class="dry-failing">
      ${all.map((f) => failing(state, f))}
    </ul>
  </details>`;
}

/** @param {any} state */
export function proofing(state) {
  return html`${stepping(state)}
    ${state.isSound || state.questions.length === 0 ? nothing : html`<span class="chip trouble">${say(state.live.isFilled ? "desk.form.sheetStands" : "desk.form.sheetWaits")}</span>`}
    <button type="button" class="plain" id="proof-map-turn" aria-pressed=${String(state.mapShown)} @click=${() => state.turnMap()}>
      ${say("desk.form.onTheMap")}
    </button>
    ${looking(state)} ${state.builds ? html`${onlySome(state)} ${dryRun(state)} ${trialsAtFoot(state)}` : nothing}`;
}
