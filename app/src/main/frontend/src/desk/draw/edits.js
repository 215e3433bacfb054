// What was changed on a desk page and is not written yet: by feature, with undo, checked by the engine, written once.
import { inWords, say } from "../../shell/say.js";
import { getJson, post } from "../../shell/server.js";
import { Undo } from "../../shell/undo.js";
import { asStood } from "./values.js";

/** A value that its field does not allow; `id` names the feature. */
export class Unfit extends Error {
  constructor(id, message) {
    super(message);
    this.id = id;
  }
}

export class Edits {
  /** The change of each feature. @type {Map<string, any>} */
  all = new Map();
  /** What is wrong with values, by feature and field. @type {Record<string, Record<string, string>>} */
  faults = {};
  undone = new Undo();
  /** What was sent and not answered. @type {{act: string, edits: string} | null} */
  #unanswered = null;

  /** @param {{base: string, engine: any, schema: any}} how */
  constructor({ base, engine, schema }) {
    this.base = base;
    this.engine = engine;
    this.schema = schema;
  }

  get count() {
    return [...this.all.values()].filter((e) => this.says(e)).length;
  }

  /** Whether an edit would change anything. */
  says(e) {
    return e.isNew || e.removed || e.geometry !== undefined || Object.keys(e.typed ?? {}).length > 0;
  }

  /** Remembers how it is now, together with what the page wants to find again. */
  keep(page) {
    this.undone.note({ all: [...this.all], page });
  }

  /** Goes back by one; gives what the page had given, undefined when there is nothing. @returns {{page: any} | undefined} */
  undo() {
    const was = /** @type {any} */ (this.undone.back());
    if (!was) return undefined;
    this.all = new Map(was.all);
    this.faults = {};
    return { page: was.page };
  }

  get(id) {
    return this.all.get(id);
  }

  /** The change of a feature, begun if there is none. */
  of(feature) {
    const { id, version = 0, stood = {} } = feature;
    return this.all.get(id) ?? { id, isNew: !!feature.isNew, version, typed: {}, stood };
  }

  put(feature, part) {
    const e = { ...this.of(feature), ...part };
    if (this.says(e)) this.all.set(e.id, e);
    else this.all.delete(e.id);
    return e;
  }

  /** Takes what was typed into a field; gives what is wrong with it in words, "" for nothing. */
  type(feature, name, typed) {
    const e = this.of(feature);
    const all = { ...e.typed };
    if (typed === undefined || (e.isNew && typed.length === 0)) delete all[name];
    else all[name] = typed;
    const now = this.put(feature, { typed: all });
    const wrong = this.check(now).faults[name] ?? "";
    this.faults[e.id] = { ...this.faults[e.id], [name]: wrong };
    return wrong;
  }

  /** Typed texts as values, and what is wrong with them. */
  check(e) {
    if (!e.like) return this.#run({ typed: e.typed ?? {}, ...(e.isNew ? {} : { stood: e.stood ?? {} }) });
    // a part of another feature has its values, but for those that are that one's alone
    const own = this.schema.fields.filter((f) => !f.readOnly && f.type !== "unique_id");
    const all = Object.fromEntries(own.map((f) => [f.name, e.typed?.[f.name] ?? asStood(e.stood?.[f.name])]));
    const { faults } = this.#run({ typed: all, stood: e.stood ?? {} });
    return { values: this.#run({ typed: e.typed ?? {}, stood: {} }).values, faults };
  }

  #run(what) {
    return inWords(this.engine.fields(JSON.stringify({ op: "check", schema: this.schema, ...what })));
  }

  /** What is sent of each change; an Unfit when a field does not allow its value. @returns {import("../../../types/border").SentEdits["edits"]} */
  sent() {
    this.faults = {};
    return [...this.all.values()].filter((e) => this.says(e)).map((e) => this.#one(e));
  }

  #one(e) {
    const { id, isNew, removed, version, geometry, like } = e;
    const { values, faults } = removed ? { values: {}, faults: {} } : this.check(e);
    const [name] = Object.keys(faults);
    if (name !== undefined) {
      this.faults[id] = faults;
      const { label } = this.schema.fields.find((f) => f.name === name);
      throw new Unfit(id, say("desk.draw.unfit", { label, fault: faults[name] }));
    }
    return { id, isNew, removed: !!removed, version, geometry, like, set: values };
  }

  /**
   * Writes all changes as one act under an id of its own. When the answer to an earlier try was lost, the office is asked first what became of it, so that
   * nothing is written twice. Gives how many were written.
   */
  async write() {
    const edits = this.sent();
    const text = JSON.stringify(edits);
    if (this.#unanswered && (await this.#wasWritten())) {
      const before = this.#unanswered.edits;
      this.#unanswered = null;
      if (text === before) return this.#over(edits.length);
      throw new Error(say("desk.draw.answerLost"));
    }
    // the same once more goes under the same id: the office may be at it still, and writes it once
    const act = this.#unanswered?.edits === text ? this.#unanswered.act : crypto.randomUUID();
    this.#unanswered = { act, edits: text };
    try {
      await post(`${this.base}/edits`, { act, edits });
    } catch (e) {
      // an answer with words says that nothing was written; without one nobody knows
      if (e.status > 0 && e.status < 500) this.#unanswered = null;
      else if (await this.#wasWritten().catch(() => false)) return this.#over(edits.length);
      throw e;
    }
    return this.#over(edits.length);
  }

  async #wasWritten() {
    return (await getJson(`${this.base}/acts/${this.#unanswered?.act}`)).written;
  }

  #over(n) {
    Object.assign(this, { all: new Map(), faults: {} });
    this.undone.forget();
    this.#unanswered = null;
    return n;
  }
}
