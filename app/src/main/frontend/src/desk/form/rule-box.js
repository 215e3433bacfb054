// One rule while it is edited: in parts with pickers, or as text; said as a sentence under it, with the features for which it holds.
import { say, words } from "../../shell/say.js";
import { drawn, html, nothing } from "../../shell/view.js";
import { partsView, whole } from "./rule-parts.js";
import { operand } from "./operand.js";
import { textView } from "./rule-text.js";

/** So long nothing is typed before features are counted, in milliseconds. */
const REST = 120;

/**
 * @typedef How
 * @property {string} id of the box, which its label names
 * @property {string} said what the rule is for, its label
 * @property {string} list the list section in which it stands; "" outside of lists
 * @property {"condition" | ""} type
 * @property {(text: string) => void} put stores the rule
 * @property {string} [invitation] what adds the rule, as long as there is none
 * @property {any[]} [notes] what its author should know of it, as that it can never hold
 * @property {string} [self] the question that the first part asks about
 */

export class RuleBox {
  /** @type {any} */
  state;
  /** @type {How} */
  how = /** @type {any} */ ({});
  text = "";
  /** What is being typed; null as long as it is what is stored. @type {string | null} */
  typed = null;
  /** Whether it is edited as text; null as long as nobody said. @type {boolean | null} */
  asText = null;
  /** Parts while one of them is not whole yet. @type {any} */
  begun = null;
  /** @type {any} */
  offer = null;
  picked = 0;
  /** @type {any} */
  counted = null;
  whichShown = false;
  #stored = "";
  /** What was put here and has not come back yet. @type {string[]} */
  #sent = [];
  #countedFor = "";
  #timer = /** @type {any} */ (0);
  #element = document.createElement("div");
  draw = drawn(this.#element, () => this.#view());

  /** @param {any} state */
  constructor(state) {
    this.state = state;
    this.#element.className = "rule-box";
  }

  /** @param {string} text @param {How} how */
  show(text, how) {
    this.how = how;
    // what was put here comes back one by one as it is stored; until then the form has what was there before
    if (text !== this.#stored) {
      this.#stored = text;
      const own = this.#sent.indexOf(text);
      this.#sent.splice(0, own + 1);
      if (own < 0 && text !== this.text) Object.assign(this, { text, typed: null, begun: null, offer: null });
    }
    this.draw.now();
    return this.#element;
  }

  /** The rule as it stands in the box now. */
  get now() {
    return this.typed ?? this.text;
  }
  get view() {
    return this.state.ruleView(this.how.list, this.now, this.how.type);
  }
  get choices() {
    return this.state.ruleChoices(this.how.list);
  }

  /** Stores what is there. @param {string} text */
  put(text) {
    const rule = text.trim();
    Object.assign(this, { typed: null, begun: null, offer: null });
    if (rule === this.text) return this.draw.now();
    this.text = rule;
    this.#sent.push(rule);
    this.how.put(rule);
    this.draw.now();
  }
  /** Takes parts, or an operand; they are stored once they are whole. @param {any} parts */
  putParts(parts) {
    if (parts && !whole(parts)) {
      this.begun = parts;
      return this.draw.now();
    }
    const text = parts ? this.state.ruleText(parts) : "";
    if (parts && !text) this.begun = parts;
    else return this.put(text);
    this.draw.now();
  }
  /** @param {boolean} asText */
  turn(asText) {
    Object.assign(this, { asText, begun: null, typed: null, offer: null });
    this.draw.now();
    const box = /** @type {HTMLElement | null} */ (this.#element.querySelector(asText ? "textarea" : "select"));
    box?.focus();
  }

  #count() {
    const { layer, builds } = this.state;
    const rule = this.now.trim();
    if (this.how.type !== "condition" || this.how.list || !layer || !builds || !rule || this.view.problems || this.#countedFor === rule)
      return;
    this.#countedFor = rule;
    clearTimeout(this.#timer);
    this.#timer = setTimeout(async () => {
      const counted = await this.state.tally(rule).catch(() => null); // without a link nothing is counted
      if (this.#countedFor !== rule) return;
      Object.assign(this, { counted, whichShown: this.whichShown && counted?.holds > 0 });
      this.draw.now();
    }, REST);
  }

  #view() {
    const { said, id, invitation, type } = this.how;
    const view = this.now ? this.view : null;
    const isPlain = type === "condition" ? view?.parts : view?.operand;
    const rich = Boolean(view && !view.problems && !isPlain);
    const asText = this.asText ?? Boolean(view && !isPlain);
    this.#count();
    const nothingYet = !this.now && !this.begun && this.asText === null;
    const keys = (e) => {
      if (e.key !== "F2" || nothingYet || (asText && rich)) return;
      e.preventDefault();
      this.turn(!asText);
    };
    if (nothingYet) return html`<button type="button" class="plain" id=${id} @click=${() => this.#begin()}>${invitation ?? said}</button>`;
    return html`<div role="group" aria-label=${said} @keydown=${keys}>
      <p class="rule-head">
        <span class="label">${said}</span>
        <button
          type="button"
          class="plain"
          data-turn
          title=${say("desk.rule.turnKey")}
          ?disabled=${asText && rich}
          @click=${() => this.turn(!asText)}
        >
          ${asText ? say(rich ? "desk.rule.textOnly" : "desk.rule.inParts") : say("desk.rule.asText")}
        </button>
        <button type="button" class="plain" data-no-rule aria-label=${say("desk.rule.noRule", { what: said })} @click=${() => this.#none()}>
          ×
        </button>
      </p>
      ${asText ? textView(this, id) : this.#parts(view, id)} ${view?.sentence && !asText ? nothing : this.#sentence(view)}
      ${(this.how.notes ?? []).map((n) => html`<p class="told" data-note>${words(n.message)}</p>`)} ${this.#counted()}
    </div>`;
  }

  #begin() {
    const { self = "", type } = this.how;
    this.asText = false;
    this.begun =
      type === "condition"
        ? { join: "all", parts: [{ left: { kind: "name", names: [self] }, comparison: "", values: [] }] }
        : { kind: "name", names: [""] };
    this.draw.now();
    /** @type {HTMLElement | null} */ (this.#element.querySelector("select"))?.focus();
  }
  #none() {
    Object.assign(this, { asText: null, counted: null });
    this.put("");
  }

  #parts(view, id) {
    if (this.how.type === "condition") return partsView(this, this.begun ?? view?.parts, id);
    const now = this.begun ?? view?.operand;
    return html`<div class="rule-part" id=${id}>${operand(this.choices, now, { formula: true }, (next) => this.putParts(next))}</div>`;
  }
  #sentence(view) {
    return view?.sentence ? html`<p class="quiet" data-sentence>${words(view.sentence)}</p>` : nothing;
  }

  /** "true for 57 of 240 features", and which. */
  #counted() {
    const c = this.counted;
    if (!c || this.#countedFor !== this.now.trim() || this.view.problems) return nothing;
    if (!c.counted) return html`<p class="quiet">${say("desk.rule.notCounted")}</p>`;
    const part = c.features < c.of ? say("desk.rule.ofFirst", { n: c.features }) : "";
    const which = () => {
      this.whichShown = !this.whichShown;
      this.draw.now();
    };
    return html`<p class="quiet" role="status" data-counted>
        ${say("desk.rule.holds", { n: c.holds, of: c.features })} ${c.fails ? say("desk.rule.fails", { n: c.fails }) : nothing} ${part}
        ${c.holds ? html`<button type="button" class="plain" aria-expanded=${String(this.whichShown)} @click=${which}>${say("desk.rule.which")}</button>` : nothing}
        ${c.filter ? html`<a href=${this.state.mapOf(c.filter)} target="_blank">${say("desk.rule.onMap")}</a>` : nothing}
      </p>
      ${
        this.whichShown
          ? html`<p class="rule-which">
              ${c.first.map(
                (f) =>
                  html`<button type="button" class="plain" @click=${() => this.state.proofOf(f.id)}>
                    ${f.caption || say("desk.noCaption")}
                  </button>`,
              )}
              ${c.holds > c.first.length ? html`<span class="quiet">${say("desk.rule.andMore", { n: c.holds - c.first.length })}</span>` : nothing}
            </p>`
          : nothing
      }`;
  }
}
