// What was changed on a desk page and is not written yet: by feature, with undo, checked by the engine, written once.
import { post, request } from "./api.js";
import { h } from "./dom.js";
import { asTyped } from "./values-form.js";

/** A value that its field does not allow; `id` names the feature. */
export class Unfit extends Error {
  constructor(id, message) {
    super(message);
    this.id = id;
  }
}

export class Edits {
  constructor({ base, engine, schema }) {
    Object.assign(this, { base, engine, schema, all: new Map(), back: [], faults: {}, unanswered: null });
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
    this.back.push(JSON.stringify({ all: [...this.all], page }));
    if (this.back.length > 200) this.back.shift();
  }

  /** Goes back by one; gives what the page had given, null when there is nothing. */
  undo() {
    if (this.back.length === 0) return null;
    const was = JSON.parse(this.back.pop());
    this.all = new Map(was.all);
    this.faults = {};
    return { page: was.page };
  }

  get(id) {
    return this.all.get(id);
  }

  /** The change of a feature, begun if there is none. */
  of(feature) {
    return this.all.get(feature.id) ?? { id: feature.id, isNew: !!feature.isNew, version: feature.version ?? 0, typed: {}, stood: feature.stood ?? {} };
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
    if (e.like) {
      // a part of another feature has its values, but for those that are that one's alone
      const all = Object.fromEntries(this.schema.fields.filter((f) => !f.readOnly && f.type !== "unique_id").map((f) => [f.name, e.typed?.[f.name] ?? asTyped(e.stood?.[f.name])]));
      const { faults } = this.run({ typed: all, stood: e.stood ?? {} });
      return { values: this.run({ typed: e.typed ?? {}, stood: {} }).values, faults };
    }
    return this.run({ typed: e.typed ?? {}, ...(e.isNew ? {} : { stood: e.stood ?? {} }) });
  }

  run(what) {
    return JSON.parse(this.engine.fields(JSON.stringify({ op: "check", schema: this.schema, ...what })));
  }

  /** What is sent of each change; an Unfit when a field does not allow its value. */
  sent() {
    this.faults = {};
    const out = [];
    for (const e of this.all.values()) {
      if (!this.says(e)) continue;
      const { id, isNew, removed, version, geometry, like } = e;
      const { values, faults } = e.removed ? { values: {}, faults: {} } : this.check(e);
      const names = Object.keys(faults);
      if (names.length > 0) {
        this.faults[id] = faults;
        const label = this.schema.fields.find((f) => f.name === names[0]).label;
        throw new Unfit(id, `${label}: ${faults[names[0]]}. Nothing was written.`);
      }
      out.push({ id, isNew, removed: !!removed, version, geometry, like, set: values });
    }
    return out;
  }

  /**
   * Writes all changes as one act under an id of its own. When the answer to an earlier try was lost, the office is asked first what became of it, so that
   * nothing is written twice. Gives how many were written.
   */
  async write() {
    const edits = this.sent();
    if (this.unanswered && (await this.wasWritten())) {
      const before = this.unanswered.edits;
      this.unanswered = null;
      if (JSON.stringify(edits) === before) return this.over(edits.length);
      throw new Error("What was written at the last try is on the layer; its answer was lost. Since then more was changed here: load the page again and make those changes anew.");
    }
    // the same once more goes under the same id: the office may be at it still, and writes it once
    const text = JSON.stringify(edits);
    const act = this.unanswered?.edits === text ? this.unanswered.act : crypto.randomUUID();
    this.unanswered = { act, edits: text };
    try {
      await post(`${this.base}/edits`, { act, edits });
    } catch (e) {
      // an answer with words says that nothing was written; without one nobody knows
      if (e.status > 0 && e.status < 500) this.unanswered = null;
      else if (await this.wasWritten().catch(() => false)) return this.over(edits.length);
      throw e;
    }
    return this.over(edits.length);
  }

  async wasWritten() {
    return (await (await request(`${this.base}/acts/${this.unanswered.act}`)).json()).written;
  }

  over(n) {
    Object.assign(this, { all: new Map(), back: [], faults: {}, unanswered: null });
    return n;
  }
}

/**
 * The foot of a page that writes: its buttons are made once and changed in place, since a button that is made anew between pressing and letting go is never
 * clicked.
 */
export function writingFoot({ write, undo, one, many }) {
  const button = h("button", { class: "main", type: "button", id: "write", onclick: write });
  const back = h("button", { type: "button", id: "undo-draw", onclick: undo }, "Undo");
  const problem = h("p", { class: "problem mt-2", role: "alert", hidden: true });
  const said = h("p", { role: "status", id: "draw-said", class: "mt-1" });
  return {
    element: h("div", { class: "stay" }, h("div", { class: "flex gap-2" }, button, back), problem, said),
    busy: () => (button.disabled = true),
    show: ({ count, canUndo, told = "", failure = "" }) => {
      button.disabled = count === 0;
      button.textContent = count === 0 ? "Nothing to write yet" : `Write ${count} ${count === 1 ? one : many} to the layer`;
      back.disabled = !canUndo;
      problem.hidden = !failure;
      problem.textContent = failure;
      said.textContent = told;
    },
  };
}
