// The sheet, live: the form as it is now, filled with a real feature, drawn and run by the same modules as in the day book.
import { viewOf } from "../../sheet/known.js";
import { keyOf } from "../../sheet/points.js";
import { answering, remembering } from "../../sheet/sheet.js";
import { say } from "../../shell/say.js";

export class Live {
  /** @type {any} what the engine says of the sheet, the last sound one while a rule is being mended */
  view = { sections: [], points: [] };
  /** @type {Record<string, Function>} what people can do to the sheet */
  act = {};
  /** The answer that was taken away last. @type {() => {key: string, shown: string} | null} */
  taken = () => null;
  /** @type {Map<string, any>} the questions that are shown, by name; of a list those of its first row */
  shown = new Map();
  /** @type {Map<string, any[]>} */
  #points = new Map();
  /** @type {Map<string, any>} */
  #lists = new Map();

  /** Where the visit's position was moved to, [lon, lat]. @type {number[] | null} */
  movedTo = null;
  /** @type {any} */
  #visit = null;
  /** @type {Map<string, any[]>} */
  #sources = new Map();

  /** Opens a visit of the form with the proof feature. @param {any} state */
  open(state) {
    const { how } = state;
    const compiled = state.isSound ? state.engine.formIn(JSON.stringify(state.form), JSON.stringify(state.schema), how.language) : null;
    if (!compiled) return;
    const offset = -new Date().getTimezoneOffset();
    const who = { person: say("desk.form.you"), device: say("desk.form.desk"), startedAt: new Date().toISOString(), offset };
    const start = { ...who, edition: state.edition, system: state.system, ...(how.office ? { turn: "desk" } : {}) };
    const feature = state.proof && !how.fresh ? JSON.stringify(state.proof) : "";
    const visit = compiled.visit(JSON.stringify(start), feature, state.indexes, "");
    if (this.movedTo) visit.moveTo(this.movedTo[0], this.movedTo[1]);
    this.#visit = visit;
    const now = viewOf(visit);
    this.#take(now());
    const draw = () => {
      this.#take(now());
      state.answered();
    };
    const deeds = { ...answering(visit, (deed) => (deed(), draw())), picture: (id) => state.fileUrl(id) };
    ({ act: this.act, taken: this.taken } = remembering(deeds));
  }

  /** What each source of a question would give now. @param {string} name @returns {any[]} */
  sources(name) {
    if (!this.#visit || !name) return [];
    if (!this.#sources.has(name)) this.#sources.set(name, JSON.parse(this.#visit.sources(name)));
    return this.#sources.get(name) ?? [];
  }

  #take(view) {
    this.#sources = new Map();
    this.view = view;
    this.shown = new Map();
    this.#lists = new Map();
    for (const s of view.sections) {
      for (const q of s.list ? (s.rows[0]?.questions ?? []) : s.questions) this.shown.set(q.name, q);
      if (s.list) this.#lists.set(s.name, s);
    }
    this.#points = new Map();
    for (const p of view.points) {
      const key = keyOf({ name: p.question, row: p.row });
      this.#points.set(key, [...(this.#points.get(key) ?? []), p]);
    }
  }

  /** What is open of a question that is shown. */
  pointsOf(q) {
    return this.#points.get(keyOf(q)) ?? [];
  }
  /** Whether it is this question's answer that was taken away last. */
  isTakenFrom(q) {
    return this.taken()?.key === keyOf(q);
  }
  /** A list section as it stands. */
  list(name) {
    return this.#lists.get(name);
  }
}
