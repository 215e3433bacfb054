// Over the planner's map: what the next strokes do, and choosing without the map, by rule, tags, past visits.
import { choose as list } from "../../shell/controls.js";
import { say } from "../../shell/say.js";
import { html, live, nothing } from "../../shell/view.js";
import { choose, invert } from "./choosing.js";
import { isBare, ruleText, testsOf } from "./rule.js";

/** What is put together in the panels; kept while the page lives. */
const put = { layer: "", field: "", test: "", value: "", text: "", tags: "", day: "" };

/** @typedef {import("./plan.js").Plan} Plan */

/** @param {Plan} plan @param {string} id @param {import("../../shell/say.js").MessageKey} label */
const tool = (plan, id, label) =>
  html`<button
    type="button"
    data-tool=${id}
    aria-pressed=${String(plan.tool === id)}
    @click=${() => plan.set({ tool: plan.tool === id ? "" : id, asking: "" })}
  >
    ${say(label)}
  </button>`;

/** @param {Plan} plan @param {string} id @param {import("../../shell/say.js").MessageKey} label */
const panel = (plan, id, label) =>
  html`<button
    type="button"
    data-panel=${id}
    aria-expanded=${String(plan.asking === id)}
    @click=${() => plan.set({ asking: plan.asking === id ? "" : id, tool: "" })}
  >
    ${say(label)}
  </button>`;

/** @type {Record<string, import("../../shell/say.js").MessageKey>} */
const HOW = {
  rectangle: "desk.round.howRectangle",
  shape: "desk.round.howShape",
  line: "desk.round.howLine",
  start: "desk.round.howEnd",
  end: "desk.round.howEnd",
  area: "desk.round.howArea",
};

/** @param {Plan} plan */
export function choosePanel(plan) {
  const mode = (taking, label) =>
    html`<button type="button" aria-pressed=${String(plan.taking === taking)} @click=${() => plan.set({ taking })}>${say(label)}</button>`;
  const none = plan.layers.length === 0;
  return html`<fieldset class="round-tools" ?disabled=${none}>
      <legend class="sr-only">${say("desk.round.choosing")}</legend>
      <div class="ways" role="group" aria-label=${say("desk.round.whatIsFound")}>
        ${mode(false, "desk.round.adds")}${mode(true, "desk.round.takes")}
      </div>
      ${tool(plan, "rectangle", "desk.round.rectangle")}${tool(plan, "shape", "desk.round.shape")}${tool(plan, "line", "desk.round.line")}
      ${panel(plan, "rule", "desk.round.byRule")}${panel(plan, "tags", "desk.round.byTags")}${panel(plan, "since", "desk.round.bySince")}
      <button type="button" class="plain" id="choose-all" @click=${() => choose(plan, {})}>${say("desk.round.all")}</button>
      <button type="button" class="plain" id="invert" @click=${() => invert(plan)}>${say("desk.round.invert")}</button>
    </fieldset>
    ${plan.tool ? html`<p class="told" role="status">${say(/** @type {any} */ (HOW[plan.tool]))}${plan.tool === "line" ? within(plan) : nothing}</p>` : nothing}
    ${none ? nothing : (PANELS[plan.asking]?.(plan) ?? nothing)}`;
}

const within = (plan) =>
  html` <label class="inline-flex items-center gap-1"
    >${say("desk.round.within")}<input
      type="number"
      class="w-24"
      id="within"
      min="0"
      max="50000"
      .value=${live(String(plan.withinM))}
      @change=${(e) => plan.set({ withinM: Math.max(0, Number(e.target.value) || 0) })}
    />${say("desk.round.m")}</label
  >`;

/** @type {Record<string, (plan: Plan) => unknown>} */
const PANELS = { rule: rulePanel, tags: tagsPanel, since: sincePanel };

const find = (label, deed, ready = true) =>
  html`<button type="button" class="main" id="find" ?disabled=${!ready} @click=${deed}>${label}</button>`;
const findSaid = (plan) => say(plan.taking ? "desk.round.findToTake" : "desk.round.findToAdd");

/** @param {Plan} plan */
function rulePanel(plan) {
  const layer = plan.layers.find((l) => l.id === put.layer) ?? plan.layers[0];
  if (!layer) return nothing;
  const field = layer.fields.find((f) => f.name === put.field);
  const tests = field ? testsOf(field) : [];
  const test = tests.some(([id]) => id === put.test) ? put.test : (tests[0]?.[0] ?? "");
  const set = (more) => {
    Object.assign(put, more);
    const f = layer.fields.find((x) => x.name === put.field);
    const all = f ? testsOf(f) : [];
    if (!all.some(([id]) => id === put.test)) put.test = all[0]?.[0] ?? "";
    if (!("text" in more)) put.text = f ? ruleText(f, put.test, put.value) : "";
    plan.changed();
  };
  const value = () => {
    if (!field || isBare(test)) return nothing;
    if (field.codes.length)
      return list(say("desk.round.value"), put.value, [["", say("desk.rule.choose")], ...codes(field)], (v) => set({ value: v }));
    const type = { date: "date", date_time: "date", whole: "number", decimal: "number" }[field.type] ?? "text";
    return html`<label
        >${say("desk.round.value")}<input
          type=${type}
          step="any"
          id="rule-value"
          .value=${live(put.value)}
          @input=${(e) => set({ value: e.target.value })} /></label
      >${field.unit}`;
  };
  const go = () => choose(plan, { filter: put.text }, [layer.id]);
  return html`<div class="card my-2 round-panel" id="by-rule">
    <div class="flex gap-3 items-end flex-wrap">
      ${list(
        say("desk.round.onLayer"),
        layer.id,
        plan.layers.map((l) => [l.id, l.name]),
        (v) => set({ layer: v, field: "", value: "" }),
      )}
      ${list(
        say("desk.round.field"),
        put.field,
        [["", say("desk.rule.choose")], ...layer.fields.map((f) => /** @type {[string, string]} */ ([f.name, f.label]))],
        (v) => set({ field: v, value: "" }),
      )}
      ${field ? list(say("desk.round.test"), test, tests, (v) => set({ test: v })) : nothing} ${value()}
    </div>
    <div class="flex gap-3 items-end mt-2">
      <label class="grow"
        >${say("desk.round.ruleText")}<input
          type="text"
          class="w-full code"
          id="rule-text"
          spellcheck="false"
          .value=${live(put.text)}
          @input=${(e) => set({ text: e.target.value })}
          @keydown=${(e) => e.key === "Enter" && put.text && go()} /></label
      >${find(findSaid(plan), go, Boolean(put.text.trim()))}
    </div>
  </div>`;
}
/** @returns {[string, string][]} */
const codes = (field) => field.codes.map((c) => [c.code, c.label]);

/** @param {Plan} plan */
function tagsPanel(plan) {
  const typed = (e) => {
    put.tags = e.target.value;
    plan.changed();
  };
  return html`<div class="card my-2 round-panel" id="by-tags">
    <label
      >${say("desk.round.tagsHow")}<textarea class="w-full" rows="3" id="tags" .value=${live(put.tags)} @input=${typed}></textarea>
    </label>
    <p class="mt-2">${find(findSaid(plan), () => choose(plan, { tags: put.tags }), Boolean(put.tags.trim()))}</p>
  </div>`;
}

/** @param {Plan} plan */
function sincePanel(plan) {
  const typed = (e) => {
    put.day = e.target.value;
    plan.changed();
  };
  return html`<div class="card my-2 round-panel" id="by-since">
    <div class="flex gap-3 items-end">
      <label>${say("desk.round.sinceHow")}<input type="date" id="since" .value=${live(put.day)} @input=${typed} /></label>
      ${find(findSaid(plan), () => choose(plan, { notSince: put.day }), Boolean(put.day))}
    </div>
  </div>`;
}
