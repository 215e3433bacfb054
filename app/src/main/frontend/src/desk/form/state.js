// A form that is being made: its questions, changed one property at a time and stored at once, in the order of the changes.
import { say } from "../../shell/say.js";
import { getJson, post } from "../../shell/server.js";
import { Choosing } from "./choosing.js";
import { Proof } from "./proof.js";

/** Properties into whose text a problem's cure can be put. */
const CURED = ["askWhen", "workOut", "checks"];

export class FormState extends Choosing {
  /** @type {string} */
  base;
  /** @type {() => void} */
  live;
  /** @type {any} */
  engine;
  problems = [];
  notes = [];
  edition = 0;
  revision = 0;
  lookups = [];
  /** The lines that are being typed. */
  typed = "";
  fieldSought = "";
  /** The form's text while it is edited; null as long as nothing was changed in it. @type {string | null} */
  text = null;
  textShown = false;
  undoSaid = "";
  redoSaid = "";
  /** This window among all that have the draft open. */
  client = crypto.randomUUID();
  /** Who else has it open. @type {{person: string, question: string}[]} */
  others = [];
  failure = "";
  stored = "";
  /** The feature with which the form is filled. */
  proof = null;
  at = 0;
  features = 0;
  #queue = Promise.resolve();

  /** @param {{base: string, project: string, engine: any, changed: () => void, live: () => void}} how `live` draws the sheet anew */
  constructor({ base, project, engine, changed, live }) {
    super();
    Object.assign(this, { base, project, engine, changed, live });
    this.indexes = engine.layers();
  }

  async begin() {
    const s = await getJson(this.base);
    Object.assign(this, { schema: s.schema, system: s.system, lookups: s.lookups, features: s.features });
    const { base, project, indexes } = /** @type {any} */ (this);
    this.proofs = new Proof({ base, project, first: s.proof, count: s.features, lookups: s.lookups, indexes });
    this.proof = (await this.proofs.at(0)) ?? null;
    this.#take(s);
  }

  /** Asks who else is here and whether something changed; what is being typed stays. */
  async news() {
    const query = `client=${this.client}&question=${encodeURIComponent(this.openName)}`;
    const { revision, others } = await getJson(`${this.base}/news?${query}`);
    const before = JSON.stringify(this.others);
    this.others = others;
    if (revision > this.revision) await this.#store(() => getJson(this.base));
    else if (before !== JSON.stringify(others)) this.changed();
  }

  #take({ revision, edition, form, problems, notes, undo, redo }) {
    Object.assign(this, { revision, edition, form, problems, notes, undoSaid: undo ?? "", redoSaid: redo ?? "" });
    const there = new Set(this.questions.map((q) => q.name));
    this.chosen = this.chosen.filter((name) => there.has(name));
    if (!there.has(this.openName)) this.openName = "";
    this.changed();
    this.live();
  }

  get current() {
    return this.questions.find((q) => q.name === this.openName);
  }
  get isSound() {
    return this.problems.length === 0;
  }
  problemsOf(name) {
    return this.problems.filter((p) => p.question === name);
  }

  /** One edit at a time, in the order they were made. @param {Record<string, unknown>} edit */
  edit(edit) {
    return this.#store(() => post(this.base + "/edits", { revision: this.revision, edit }));
  }
  undo() {
    return this.#store(() => post(this.base + "/undo", {}));
  }
  redo() {
    return this.#store(() => post(this.base + "/redo", {}));
  }
  #store(deed) {
    return (this.#queue = this.#queue.then(async () => {
      this.stored = say("desk.form.storing");
      this.changed();
      try {
        this.#take(await deed());
        Object.assign(this, { failure: "", stored: say("desk.form.stored") });
      } catch (e) {
        Object.assign(this, { failure: e.message, stored: "" });
      }
      this.changed();
    }));
  }
  set(property, value) {
    return this.edit({ op: "set", question: this.openName, property, value });
  }
  open(name) {
    this.openName = name;
    this.chosen = name ? [name] : [];
    this.changed();
  }
  /** What is understood of typed lines, at once and without the office. @param {string} text */
  understood(text) {
    return JSON.parse(this.engine.lines(text, JSON.stringify(this.questions.map((q) => q.name))));
  }
  textNow() {
    return this.engine.formText(JSON.stringify(this.form), "[]");
  }
  readText(text) {
    return JSON.parse(this.engine.readFormText(JSON.stringify(this.form), text));
  }
  showText(whether) {
    Object.assign(this, { textShown: whether, text: null });
    this.changed();
  }
  /** Questions for fields of the layer. @param {any[]} fields */
  async wire(fields) {
    const questions = fields.map((f) => JSON.parse(this.engine.questionFor(JSON.stringify(f))));
    const { section, after } = this.place;
    await this.edit(
      this.form.sections.length
        ? { op: "insert", questions, section, after }
        : {
            op: "several",
            edits: [
              { op: "section.add", at: 0 },
              { op: "insert", questions, section: 0 },
            ],
          },
    );
    if (!this.failure) this.choose([questions.at(-1).name]);
  }

  turn(name) {
    this.open(this.openName === name ? "" : name);
  }
  remove() {
    const question = this.openName;
    this.openName = "";
    return this.edit({ op: "remove", question });
  }

  get #checks() {
    return this.current.checks ?? [];
  }
  addCheck() {
    this.set("checks", [...this.#checks, { rule: `${this.openName} IS NOT NULL`, message: "", weight: "firm" }]);
  }
  setCheck(n, part, value) {
    this.set(
      "checks",
      this.#checks.map((c, i) => (i === n ? { ...c, [part]: value } : c)),
    );
  }
  removeCheck(n) {
    this.set(
      "checks",
      this.#checks.filter((_, i) => i !== n),
    );
  }
  get lookUp() {
    return (this.current.prefill ?? []).find((p) => p.from === "place");
  }
  /** Looks a field of a layer up by place, before the other sources; "" for no look-up. @param {string} key layer/field */
  setLookUp(key) {
    const rest = (this.current.prefill ?? []).filter((p) => p.from !== "place");
    const [layer, field] = key.split("/");
    const usual = this.lookups.find((l) => l.id === layer)?.lookUp;
    this.set("prefill", key ? [{ from: "place", ...usual, field }, ...rest] : rest);
  }

  /** Whether a problem proposes what can be put into its rule. */
  canCure(p) {
    return Boolean(p.fix) && CURED.includes(p.property);
  }
  /** Puts a cure that a problem proposes into the rule at its place. */
  cure(p) {
    const put = (text) => text.slice(0, p.from) + p.fix + text.slice(p.to);
    if (p.property === "checks") return this.setCheck(p.index, "rule", put(this.#checks[p.index].rule));
    return this.set(p.property, put(this.current[p.property] ?? ""));
  }

  async step(by) {
    const to = (this.at + by + this.features) % Math.max(1, this.features);
    try {
      this.proof = (await this.proofs.at(to)) ?? null;
      Object.assign(this, { at: to, failure: "" });
    } catch (e) {
      this.failure = e.message;
    }
    this.changed();
    this.live();
  }
}
