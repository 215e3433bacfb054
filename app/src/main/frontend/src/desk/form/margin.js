// The margin beside a question: what it is, which field it writes to, its rules; one click opens it for editing in place.
import { say, words } from "../../shell/say.js";
import { asTyped } from "../../shell/typed.js";
import { html, nothing } from "../../shell/view.js";
import { trouble } from "./trouble.js";
import { typeSaid } from "./types.js";

/** @type {Record<string, import("../../shell/say.js").MessageKey>} */
const NEED = { needed: "sheet.needed", wanted: "sheet.wanted" };
/** @type {Record<string, import("../../shell/say.js").MessageKey>} */
const SOURCE = {
  asset: "desk.form.fromAsset",
  "last visit": "desk.form.fromLastVisit",
  place: "desk.form.fromPlace",
  device: "desk.form.fromDevice",
  fixed: "desk.form.fromFixed",
  "worked out": "desk.form.fromFormula",
};
/** So many codes are named. */
const SOME = 4;

function range(q) {
  const [from, to] = [asTyped(q.from), asTyped(q.to)];
  if (!from && !to) return "";
  if (!from) return say("sheet.atMost", { to });
  return to ? say("sheet.fromTo", { from, to }) : say("sheet.atLeast", { from });
}

function codes(q) {
  const all = (q.codes ?? []).filter((c) => !c.retired);
  if (all.length === 0) return "";
  const some = all.slice(0, SOME).map((c) => c.label || c.code);
  return say("desk.form.codesAre", { which: some.join(", "), more: all.length - some.length });
}

/** Codes that look like one, told where they stand and not only where they are edited. */
function alike(state, q) {
  const groups = state.alike(q.codes ?? []);
  if (groups.length === 0) return "";
  return html`<b>${say("desk.form.codesAlike", { which: groups.map((g) => g.join(", ")).join("; ") })}</b>`;
}

/** What is true of a question beside its kind, each with the box in which it is edited. @returns {[string, unknown][]} */
function facts(state, q) {
  const list = state.listOf(q.name);
  const rule = (said, text, type = "condition") => {
    const { sentence } = state.ruleView(list, text, type);
    return html`${said} ${sentence ? html`<span title=${text}>${words(sentence)}</span>` : html`<span class="code">${text}</span>`}`;
  };
  /** @type {[string, unknown][]} */
  const all = [
    ["e-codes", codes(q)],
    ["e-codes", alike(state, q)],
    ["e-ask", q.askWhen ? rule(say("desk.form.askedWhen"), q.askWhen) : ""],
    ...(q.checks ?? []).map((c, i) => [
      `e-check-${i}`,
      rule(c.weight === "soft" ? say("desk.form.asksWhether") : say("desk.form.mustHold"), c.rule),
    ]),
    ["e-work", q.workOut ? rule(say("desk.form.workedOutBy"), q.workOut, "") : ""],
    ["e-sources", (q.prefill ?? []).map((p) => say(SOURCE[p.from] ?? "desk.form.fromFixed")).join(", ")],
    ["e-hand", hand(q)],
  ];
  return all.filter(([, said]) => said);
}

function hand(q) {
  return [
    q.readOnly ? say("desk.form.readOnly") : "",
    q.lockOnRevisit ? say("desk.form.locked") : "",
    q.officeOnly ? say("desk.form.officePart") : "",
    q.unique ? say("desk.form.unique") : "",
  ]
    .filter(Boolean)
    .join(", ");
}

/**
 * What stands beside a question.
 * @param {any} state
 * @param {any} q
 * @param {{open: boolean, here: string[], wrong: any[]}} how `here` are other people who are at it
 */
export function margin(state, q, { open, here, wrong }) {
  const pick = (e) => {
    if (e.shiftKey) return state.chooseTo(q.name);
    if (e.ctrlKey || e.metaKey) return state.chooseToo(q.name);
    state.turn(q.name);
  };
  const edit = (id) => {
    state.open(q.name);
    const box = document.getElementById(id);
    box?.closest("details")?.setAttribute("open", "");
    const first = /** @type {HTMLElement | null | undefined} */ (
      box?.matches("input, select, textarea") ? box : box?.querySelector("input, select, textarea, button")
    );
    first?.focus();
  };
  const kind = [typeSaid(q.type), q.unit ?? "", range(q), q.need in NEED ? say(NEED[q.need]) : ""].filter(Boolean).join(" · ");
  return html`<button
      class="plain margin-head"
      type="button"
      data-name=${q.name}
      aria-expanded=${String(open)}
      aria-label=${say("desk.form.ofQuestion", { label: q.label, kind })}
      @click=${pick}
    >
      <span>${kind}</span>${here.map((o) => html`<span class="chip">${o}</span>`)}
      ${wrong.length ? html`<span class="chip trouble">${say("desk.form.toMend")}</span>` : nothing}
    </button>
    ${
      open
        ? nothing
        : html`<ul class="margin-facts">
            ${facts(state, q).map(([id, said]) => html`<li><button type="button" class="plain" @click=${() => edit(id)}>${said}</button></li>`)}
            ${wrong.map((p) => html`<li class="line-problem">${trouble(state, p)}</li>`)}
          </ul>`
    }`;
}
