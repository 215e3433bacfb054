// A form that is being made: its questions, changed one property at a time and stored at once, in the order of the changes.
import { say } from "../../shell/say.js";
import { getJson, post, postFile } from "../../shell/server.js";
import { Dry } from "./dry.js";
import { Filling } from "./filling.js";
import { Proof } from "./proof.js";
import { Trials } from "./trials.js";
import { typingBox } from "./typing.js";

export class FormState extends Filling {
  base = "";
  edition = 0;
  /** Whether the reader may change the draft and run it. */
  builds = true;
  revision = 0;
  /** Which view stands in the middle: sheet, text, languages, about. */
  view = "sheet";
  /** The lines that are being typed. */
  typed = "";
  fieldSought = "";
  kindsShown = false;
  kindSought = "";
  codeSought = "";
  codeOpen = "";
  codesTold = "";
  /** The language that stands beside the form's own. */
  language = "";
  /** What became of pictures that were brought in. @type {string[]} */
  told = [];
  /** The form's text while it is edited; null as long as nothing was changed in it. @type {string | null} */
  text = null;
  undoSaid = "";
  redoSaid = "";
  /** This window among all that have the draft open. */
  client = crypto.randomUUID();
  /** Who else has it open. @type {{person: string, question: string}[]} */
  others = [];
  failure = "";
  stored = "";
  /** How many features have a value, by field. @type {Record<string, number>} */
  filled = {};
  dry = new Dry(this);
  trials = new Trials(this);
  #queue = Promise.resolve();

  /** @param {{base: string, project: string, engine: any, changed: () => void, answered: () => void}} how */
  constructor({ base, project, engine, changed, answered }) {
    super();
    Object.assign(this, { base, project, engine, changed, answered });
    this.indexes = engine.layers();
    const { box, draw } = typingBox(this);
    this.typingBox = box;
    this.drawTyping = draw;
  }

  async begin() {
    const s = await getJson(this.base);
    Object.assign(this, { schema: s.schema, layer: s.layer, system: s.system, lookups: s.lookups, features: s.features, builds: s.builds });
    const { base, project, indexes } = /** @type {any} */ (this);
    this.proofs = new Proof({ base, project, first: s.proof, count: s.features, lookups: s.lookups, indexes });
    this.proof = (await this.proofs.at(0)) ?? null;
    this.#take(s);
    // how full the fields are is looked over whole, which nobody waits for
    getJson(this.base + "/filled").then(
      (filled) => this.#show({ filled }),
      () => {}, // then it is not told
    );
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
    this.keepSame(form);
    Object.assign(this, { revision, edition, form, problems, notes, undoSaid: undo ?? "", redoSaid: redo ?? "" });
    const there = new Set(this.questions.map((q) => q.name));
    this.chosen = this.chosen.filter((name) => there.has(name));
    if (!there.has(this.openName)) this.openName = "";
    this.live.open(this);
    this.dry.changed();
    this.trials.changed();
    this.changed();
  }

  /** A question that is as it was is the very object that it was, so that it is not drawn again. */
  keepSame(form) {
    const before = new Map(this.questions.map((q) => [q.name, q]));
    const same = (q) => (JSON.stringify(before.get(q.name)) === JSON.stringify(q) ? before.get(q.name) : q);
    for (const s of form.sections) s.questions = s.questions.map(same);
  }

  /**
   * One edit at a time, in the order they were made.
   * @param {Record<string, unknown> | (() => Record<string, unknown>)} edit what gives it is asked when its turn has come
   */
  edit(edit) {
    return this.#store(() => post(this.base + "/edits", { revision: this.revision, edit: typeof edit === "function" ? edit() : edit }));
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
  #show(what) {
    Object.assign(this, what);
    this.changed();
  }
  open(name) {
    if (name !== this.openName) this.forgetRuleBoxes();
    this.#show({ openName: name, chosen: name ? [name] : [], codeSought: "", codeOpen: "", codesTold: "" });
  }
  showView(view) {
    this.#show({ view, text: null });
  }
  showKinds(whether) {
    this.#show({ kindsShown: whether, kindSought: "" });
    document.getElementById(whether ? "kind-sought" : "typing")?.focus();
  }
  seekKind(text) {
    this.kindSought = text;
    this.drawTyping.now();
  }
  seekCode(text) {
    this.#show({ codeSought: text });
  }
  openCode(code) {
    this.#show({ codeOpen: code });
  }
  setLanguage(language) {
    this.#show({ language });
  }

  /** Does an edit that adds questions, and chooses the last of them, so that the next goes behind it. */
  async #adding(edit) {
    const before = new Set(this.questions.map((q) => q.name));
    const { section } = this.place;
    const sections = this.form.sections.length;
    await this.edit(edit);
    const added = this.questions.filter((q) => !before.has(q.name));
    if (added.length) this.choose([added.at(-1).name]);
    else if (this.form.sections.length > sections) this.#begin(section + this.form.sections.length - sections);
    return added;
  }
  /** What is typed next goes into a section that was begun. @param {number} at */
  #begin(at) {
    this.choose([]);
    this.begun = at;
    this.changed();
  }
  /** Adds lines where the next question goes. @param {string} text */
  typeLines(text) {
    const { section, after } = this.place;
    return this.#adding({ op: "type", text, section: Math.max(0, section), after });
  }
  /** Adds whole questions where the next one goes. @param {any[]} questions */
  insert(questions) {
    const { section, after } = this.place;
    const insert = { op: "insert", questions, section: Math.max(0, section), after };
    return this.#adding(this.form.sections.length ? insert : { op: "several", edits: [{ op: "section.add", at: 0 }, insert] });
  }
  /** Questions for fields of the layer. @param {any[]} fields */
  wire(fields) {
    return this.insert(fields.map((f) => JSON.parse(this.engine.questionFor(JSON.stringify(f)))));
  }
  /** A question of a kind, opened with its label ready to be typed. @param {string} type @param {string} label */
  async addOfKind(type, label) {
    this.kindsShown = false;
    const codes = ["choice", "choices", "ranked", "grade"].includes(type) ? { codes: [{ code: "1", label: "1" }] } : {};
    const [q] = await this.insert([{ name: type, label, type, ...codes }]);
    if (!q) return;
    this.open(q.name);
    const box = /** @type {HTMLInputElement | null} */ (document.getElementById("e-label"));
    box?.focus();
    box?.select();
  }
  /** Opens a question and brings it into view. @param {string} name */
  goTo(name) {
    if (this.view !== "sheet") this.showView("sheet");
    this.open(name);
    document.querySelector(`[data-line="${CSS.escape(name)}"]`)?.scrollIntoView({ block: "center" });
  }
  turn(name) {
    this.open(this.openName === name ? "" : name);
  }
  remove() {
    const question = this.openName;
    this.openName = "";
    return this.edit({ op: "remove", question });
  }
  async rename(from, to) {
    await this.edit({ op: "rename", question: from, value: to });
    if (!this.failure) this.open(to);
  }

  /** Keeps a picture and puts it to a question, or to one of its codes. @param {File} file @param {string} name @param {string} code */
  async setPicture(file, name, code) {
    try {
      const { id } = await postFile(`/api/p/${this.project}/form-pictures`, file);
      if (code) await this.changeOf(name, "codes", (codes) => codes.map((c) => (c.code === code ? { ...c, picture: id } : c)));
      else await this.edit({ op: "set", question: name, property: "picture", value: id });
    } catch (e) {
      this.#show({ failure: e.message });
    }
  }
}
