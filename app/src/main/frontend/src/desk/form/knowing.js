// What core says of a form that is being made, asked in the page itself: lines, text, codes, languages, the layer that it would make.
import { Choosing } from "./choosing.js";

/** Codes that look alike are sought in lists up to this long. */
const MOST_COMPARED = 500;

export class Knowing extends Choosing {
  /** @type {any} */
  engine;
  /** @type {any} */
  schema = { fields: [] };
  project = "";
  /** @type {any} */
  layer = null;
  #ways = /** @type {Map<string, string[]> | null} */ (null);
  #lines = /** @type {WeakMap<any, string>} */ (new WeakMap());
  #alike = /** @type {WeakMap<any, string[][]>} */ (new WeakMap());

  #ask(what) {
    return JSON.parse(this.engine.workshop(JSON.stringify(what)));
  }
  /** What is understood of typed lines, at once and without the office. @param {string} text */
  understood(text) {
    return JSON.parse(this.engine.lines(text, JSON.stringify(this.questions.map((q) => q.name))));
  }
  /** The label of a field to which a question of that name would write. @param {string} name */
  looseField(name) {
    const f = this.schema.fields.find((x) => x.name === name && !x.officeOnly);
    return f && this.questions.every((q) => q.writesTo !== name) ? f.label || f.name : "";
  }
  textNow() {
    return this.engine.formText(JSON.stringify(this.form), "[]");
  }
  readText(text) {
    return JSON.parse(this.engine.readFormText(JSON.stringify(this.form), text));
  }
  /** A question as its line. @param {string} name */
  lineOf(name) {
    const q = this.questions.find((x) => x.name === name);
    if (!q) return "";
    let line = this.#lines.get(q);
    if (line === undefined)
      this.#lines.set(
        q,
        (line = this.engine.formText(JSON.stringify({ title: "", sections: [{ questions: [q] }] }), JSON.stringify([name])).trim()),
      );
    return line;
  }
  /** Puts another line in the place of a question's; what a line can't say is kept. @param {string} name @param {string} line */
  setLine(name, line) {
    const now = this.lineOf(name);
    const lines = this.textNow().split("\n");
    const at = lines.indexOf(now);
    if (at < 0 || !line.trim()) return undefined;
    lines[at] = line.trim();
    return this.edit({ op: "text", text: lines.join("\n") });
  }
  /** The layouts that fit a kind. @param {string} type @returns {string[]} */
  ways(type) {
    this.#ways ??= new Map(this.#ask({ op: "kinds" }).kinds.map((k) => [k.type, k.ways]));
    return this.#ways.get(type) ?? [""];
  }
  /** Codes of a list that look like one. @param {any[]} codes @returns {string[][]} */
  alike(codes) {
    if (codes.length > MOST_COMPARED || codes.length < 2) return [];
    let groups = this.#alike.get(codes);
    if (!groups) this.#alike.set(codes, (groups = this.#ask({ op: "alike", codes }).groups));
    return groups ?? [];
  }
  /** Codes out of a pasted column, beside those that are there. */
  pastedCodes(text, there) {
    return this.#ask({ op: "codes", text, there });
  }
  /** All texts beside another language's. @param {string} language */
  texts(language) {
    return this.#ask({ op: "texts", form: this.form, language });
  }
  /** The other languages of the form. @returns {string[]} */
  get languages() {
    const found = new Set();
    const walk = (v) => {
      if (!v || typeof v !== "object") return;
      if (v.in && !Array.isArray(v)) Object.keys(v.in).forEach((l) => found.add(l));
      Object.values(v).forEach(walk);
    };
    walk(this.form);
    return [...found].sort();
  }
  /** The questions and codes that names of files mean. @param {string[]} files */
  placesOf(files) {
    return this.#ask({ op: "pictures", form: this.form, files }).places;
  }
  /** The map of the layer with a filter. @param {string} filter */
  mapOf(filter) {
    return `/p/${this.project}/layers/${this.layer.id}?filter=${encodeURIComponent(filter)}`;
  }
  /** Where a file beside the forms is. @param {string} id */
  fileUrl(id) {
    return `/p/${this.project}/form-files/${encodeURIComponent(id)}`;
  }
}
