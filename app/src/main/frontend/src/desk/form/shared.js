// What several questions share: rules and look-ups by name, where each is used; and a drawing of what depends on what.
import { options, textBox } from "../../shell/controls.js";
import { say, words } from "../../shell/say.js";
import { html, nothing, repeat } from "../../shell/view.js";
import { messages } from "./messages.js";
import { drawing, PART } from "./uses.js";

/** Where something is used, each a way there. */
function used(state, uses, name) {
  const there = uses.filter((u) => u.reads === name);
  if (there.length === 0) return html`<span class="quiet">${say("desk.shared.nowhere")}</span>`;
  return html`<span class="rule-which">
    ${there.map(
      (u) =>
        html`<button type="button" class="plain" @click=${() => state.goTo(u.by)}>
          ${state.labelOf(u.by)} <span class="quiet">${say(PART[u.part])}</span>
        </button>`,
    )}
  </span>`;
}

function rule(state, uses, r) {
  const set = (more) => state.edit({ op: "rule.set", ...r, ...more });
  const how = {
    id: `shared-${r.name}`,
    said: say("desk.shared.holdsWhen"),
    list: "",
    type: "condition",
    put: (text) => (text ? set({ rule: text }) : undefined),
  };
  return html`<li class="card grid gap-2" data-shared-rule=${r.name}>
    <div class="flex flex-wrap gap-3 items-end">
      <label
        >${say("desk.form.name")}
        ${textBox(r.name, (v) => state.edit({ op: "rename", question: r.name, value: v.trim() }), { code: true, class: "code", size: 18 })}</label
      >
      <label class="flex-1">${say("desk.shared.called")} ${textBox(r.label, (label) => set({ label }), { class: "w-full" })}</label>
      <button type="button" class="plain" @click=${() => state.edit({ op: "rule.remove", name: r.name })}>${say("do.remove")}</button>
    </div>
    ${state.ruleBox(`shared ${r.name}`, r.rule, how)}
    <p>${say("desk.shared.usedIn")} ${used(state, uses, r.name)}</p>
    ${state.problemsOf(r.name).map((p) => html`<p class="point firm">${p.part}: ${words(p.message)}</p>`)}
  </li>`;
}

function lookUp(state, uses, name, l) {
  return html`<li class="card grid gap-2" data-shared-look-up=${name}>
    <div class="flex flex-wrap gap-3 items-end">
      <label
        >${say("desk.form.name")} ${textBox(name, (v) => state.edit({ op: "lookUp.rename", name, value: v.trim() }), { size: 24 })}</label
      >
      <span class="flex-1"
        >${say("desk.shared.looksInto", { layer: l.layerName, how: say(HOW[l.how ?? "containing"]), m: l.withinM ?? 0 })}</span
      >
      <button type="button" class="plain" @click=${() => state.edit({ op: "lookUp.remove", name })}>
        ${say("desk.shared.shareNoMore")}
      </button>
    </div>
    <p>${say("desk.shared.usedIn")} ${used(state, uses, name)}</p>
  </li>`;
}

/** @type {Record<string, import("../../shell/say.js").MessageKey>} */
const HOW = {
  containing: "desk.look.containing",
  nearest: "desk.look.nearest",
  along: "desk.look.along",
  around: "desk.look.around",
};

/** A name that nothing of the form has yet. */
function freeName(state) {
  const taken = new Set([...state.questions.map((q) => q.name), ...(state.form.rules ?? []).map((r) => r.name)]);
  for (let n = 1; ; n++) if (!taken.has(`rule_${n}`)) return `rule_${n}`;
}

/** @param {any} state */
export function shared(state) {
  const uses = state.uses();
  const rules = state.form.rules ?? [];
  const lookUps = Object.entries(state.form.lookUps ?? {});
  const first = state.questions[0]?.name;
  const add = () => state.edit({ op: "rule.set", name: freeName(state), label: say("desk.shared.newRule"), rule: `${first} IS NOT NULL` });
  const of = state.drawnOf;
  return html`<div id="shared" class="grid gap-4">
    <section>
      <h3>${say("desk.shared.rules")}</h3>
      <p class="quiet">${say("desk.shared.rulesAre")}</p>
      <ul class="grid gap-2">
        ${repeat(
          rules,
          (r) => r.name,
          (r) => rule(state, uses, r),
        )}
      </ul>
      <button type="button" id="add-rule" ?disabled=${!first} @click=${add}>${say("desk.shared.addRule")}</button>
    </section>
    <section>
      <h3>${say("desk.shared.lookUps")}</h3>
      ${lookUps.length ? nothing : html`<p class="quiet">${say("desk.shared.lookUpsAre")}</p>`}
      <ul class="grid gap-2">
        ${lookUps.map(([name, l]) => lookUp(state, uses, name, l))}
      </ul>
    </section>
    ${messages(state)}
    <section>
      <h3>${say("desk.shared.depends")}</h3>
      <label
        >${say("desk.shared.drawn")}
        <select id="drawn-of" @change=${(e) => state.drawUsesOf(e.target.value)}>
          ${options(
            [
              ["", say("desk.shared.all")],
              ...state.questions.filter((q) => uses.some((u) => u.by === q.name || u.reads === q.name)).map((q) => [q.name, q.label]),
            ],
            of,
          )}
        </select></label
      >
      ${drawing(state, of ? uses.filter((u) => u.by === of || u.reads === of) : uses)}
    </section>
  </div>`;
}
