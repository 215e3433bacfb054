// The rules of a form while they are written: what core says of each, the checks of the open question, and what mends what is wrong.
import { say } from "../../shell/say.js";
import { post } from "../../shell/server.js";
import { Knowing } from "./knowing.js";
import { ofLookUp, taken } from "./look-up.js";
import { RuleBox } from "./rule-box.js";

/** Kinds of questions whose answer can be the place of a visit. */
const PLACES = ["point", "line", "area"];

/** Properties whose text is a rule, which a problem's cure can change. */
const RULES = ["askWhen", "workOut", "checks"];

export class Ruling extends Knowing {
  base = "";
  /** @type {any[]} */
  problems = [];
  /** What keeps nothing back, but its author should know. @type {any[]} */
  notes = [];
  /** @type {any[]} */
  lookups = [];
  /** The rules that are open for editing, by where they stand. @type {Map<string, RuleBox>} */
  #boxes = new Map();
  /** Of many checks those that are opened, by their number. @type {Set<number>} */
  openChecks = new Set();
  /** What core has of the rules of a form, made when first asked. @type {{of: any, desk: any, views: Map<string, any>, choices: Map<string, any>} | null} */
  #rules = null;

  get current() {
    return this.questions.find((q) => q.name === this.openName);
  }
  get isSound() {
    return this.problems.length === 0;
  }
  problemsOf(name) {
    return this.problems.filter((p) => p.question === name);
  }
  set(property, value) {
    return this.edit({ op: "set", question: this.openName, property, value });
  }
  /** Changes a list of the open question: as it is when the change's turn has come, so that two quick changes are both kept. @param {string} property @param {(now: any[]) => any[]} change */
  change(property, change) {
    return this.changeOf(this.openName, property, change);
  }
  /** The same of any question. @param {string} name @param {string} property @param {(now: any[]) => any[]} change */
  changeOf(name, property, change) {
    const now = () => this.questions.find((q) => q.name === name)?.[property] ?? [];
    return this.edit(() => ({ op: "set", question: name, property, value: change(now()) }));
  }
  /** The list section in which a question stands; "" outside of lists. @param {string} name */
  listOf(name) {
    return this.form.sections.find((s) => s.rows && s.questions.some((q) => q.name === name))?.name ?? "";
  }

  get #desk() {
    if (this.#rules?.of !== this.form) {
      const desk = this.engine.rules(JSON.stringify(this.form), JSON.stringify(this.schema));
      this.#rules = { of: this.form, desk, views: new Map(), choices: new Map() };
    }
    return this.#rules;
  }
  /** A rule as core sees it: text, sentence, parts, operand; or its problems. @param {string} list @param {string} text @param {string} type condition, or "" */
  ruleView(list, text, type) {
    const key = [list, type, text].join("\n");
    const { desk, views } = this.#desk;
    if (!views.has(key)) views.set(key, JSON.parse(desk.view(list, text, type)));
    return views.get(key);
  }
  /** What pickers offer where a rule stands. @param {string} list */
  ruleChoices(list) {
    const { desk, choices } = this.#desk;
    if (!choices.has(list)) choices.set(list, JSON.parse(desk.choices(list)));
    return choices.get(list);
  }
  /** What could be written where the cursor stands. */
  completion(list, text, at) {
    return JSON.parse(this.#desk.desk.complete(list, text, at));
  }
  /** The words of a rule by kind, for their colours. @returns {[number, number, string][]} */
  ruleWords(text) {
    return JSON.parse(this.#desk.desk.words(text));
  }
  /** The text of parts, or of an operand; "" as long as they are none. */
  ruleText(parts) {
    return JSON.parse(this.#desk.desk.text(JSON.stringify(parts))).text ?? "";
  }
  /** For how many features a condition holds. @param {string} rule @param {number | null} [named] how many of them are named */
  tally(rule, named = null) {
    return post(this.base + "/tally", { rule, named });
  }

  /**
   * The box in which a rule is edited, the same as long as its question is open.
   * @param {string} key where it stands
   * @param {string} text as it is stored
   * @param {import("./rule-box.js").How} how
   */
  ruleBox(key, text, how) {
    let box = this.#boxes.get(key);
    if (!box) this.#boxes.set(key, (box = new RuleBox(this)));
    return box.show(text, how);
  }
  forgetRuleBoxes() {
    this.openChecks.clear();
    this.#boxes.clear();
  }
  #uses = /** @type {WeakMap<any, any[]>} */ (new WeakMap());
  /** The question whose neighbours are drawn; "" for all. */
  drawnOf = "";
  /** What depends on what. @returns {{by: string, part: string, reads: string}[]} */
  uses() {
    let all = this.#uses.get(this.form);
    if (!all) this.#uses.set(this.form, (all = JSON.parse(this.#desk.desk.uses())));
    return all ?? [];
  }
  drawUsesOf(name) {
    this.drawnOf = name;
    this.changed();
  }

  /** The section or block whose condition is edited; "" for none. */
  ruleOpen = "";
  /** @param {string} key */
  openRule(key) {
    this.ruleOpen = key;
    this.changed();
  }

  addCheck() {
    const rule = `${this.openName} IS NOT NULL`;
    this.openChecks.add(this.current?.checks?.length ?? 0);
    this.change("checks", (now) => [...now, { rule, message: "", weight: "firm" }]);
  }
  setCheck(n, part, value) {
    this.change("checks", (now) => now.map((c, i) => (i === n ? { ...c, [part]: value } : c)));
  }
  removeCheck(n) {
    this.openChecks = new Set([...this.openChecks].filter((i) => i !== n).map((i) => (i > n ? i - 1 : i)));
    this.change("checks", (now) => now.filter((_, i) => i !== n));
  }
  /** A name that no look-up has yet, from its layer's. */
  #lookUpName(s) {
    const there = this.form.lookUps ?? {};
    let name = s.layerName;
    for (let n = 2; name in there; n++) name = `${s.layerName} ${n}`;
    return name;
  }
  /** The edits that make a look-up one that several questions share, and its name. */
  #sharing(s) {
    if (s.lookUp) return { name: s.lookUp, edits: [] };
    const name = this.#lookUpName(s);
    const chain = this.current.prefill.map((x) => (x === s ? { from: "place", lookUp: name, ...taken(s) } : x));
    const set = { op: "set", question: this.openName, property: "prefill", value: chain };
    return { name, edits: [{ op: "lookUp.set", name, lookUp: ofLookUp(s) }, set] };
  }
  /** Makes a look-up one that several questions share. @param {any} s the source that has it */
  share(s) {
    return this.edit({ op: "several", edits: this.#sharing(s).edits });
  }
  /** Another question takes another field of what a look-up finds. @param {any} s @param {string} field */
  takeToo(s, field) {
    const { name, edits } = this.#sharing(s);
    const layer = s.layer ?? this.form.lookUps[s.lookUp].layer;
    const f = this.lookups.find((l) => l.id === layer).schema.fields.find((x) => x.name === field);
    const { writesTo, ...q } = JSON.parse(this.engine.questionFor(JSON.stringify(f)));
    const own = this.schema.fields.some((x) => x.name === writesTo && !x.officeOnly) ? { writesTo } : {};
    const question = { ...q, ...own, prefill: [{ from: "place", lookUp: name, field }] };
    const section = this.form.sections.findIndex((x) => x.questions.some((y) => y.name === this.openName));
    return this.edit({ op: "several", edits: [...edits, { op: "insert", questions: [question], section, after: this.openName }] });
  }

  /** Whether a form that has no layer yet would make one without places, so that no look-up by place finds anything. */
  get lacksPosition() {
    const { layer } = /** @type {any} */ (this);
    return !layer && !this.form.sections.some((s) => !s.rows && s.questions.some((q) => PLACES.includes(q.type)));
  }
  /** Adds the question that asks where. */
  addPosition() {
    const question = { name: "position", label: say("desk.look.position"), type: "point", need: "needed" };
    return this.edit({ op: "insert", questions: [question], section: 0, after: "" });
  }

  /** Opens one of many checks of the open question. @param {number} i */
  openCheck(i) {
    this.openChecks.add(i);
    this.changed();
  }
  /** The part of a rule's text in which a problem lies; "" when it lies in no text. */
  placeOf(p) {
    const q = this.questions.find((one) => one.name === p.question);
    const text = p.property === "checks" ? q?.checks?.[p.index]?.rule : q?.[p.property];
    return typeof text === "string" && p.to > p.from ? text.slice(p.from, p.to) : "";
  }
  /** Whether a problem proposes what can be put into its rule. */
  canCure(p) {
    return Boolean(p.fix) && RULES.includes(p.property);
  }
  /** Puts a cure that a problem proposes into the rule at its place. */
  cure(p) {
    return this.#mend(p, (text) => text.slice(0, p.from) + p.fix + text.slice(p.to));
  }
  /** Whether a problem lies in the text of a rule, which the question could be without. */
  canDrop(p) {
    return p.from !== undefined && RULES.includes(p.property);
  }
  /** Takes the rule away in which a problem lies, as when it speaks of a question that was deleted. */
  drop(p) {
    return this.#mend(p, () => "");
  }
  /** Changes the text of the rule in which a problem lies; a check without a rule is none. */
  #mend(p, change) {
    const q = this.questions.find((one) => one.name === p.question);
    const checks = () =>
      q.checks.map((c, i) => (i === p.index ? { ...c, rule: change(c.rule) } : c)).filter((c, i) => i !== p.index || c.rule);
    const value = p.property === "checks" ? checks() : change(q[p.property] ?? "");
    return this.edit({ op: "set", question: p.question, property: p.property, value });
  }
}
