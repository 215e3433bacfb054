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

  /** With what the visit was begun. @type {{feature: any, start: any}} */
  #begun = { feature: null, start: {} };
  /** What was tried, and on what: it is done again when the form is another. The open visit knows more of it when `more`. */
  #tried = { key: "", saved: "", more: false };

  /** With what a visit of the proof feature begins. @param {any} state */
  #begin({ how, proof, edition }) {
    const offset = -new Date().getTimezoneOffset();
    const who = { person: say("desk.form.you"), device: say("desk.form.desk"), startedAt: new Date().toISOString(), offset };
    const feature = how.fresh ? null : proof;
    return { feature, start: { ...who, edition, ...(feature?.lastVisit ?? {}), ...(how.office ? { turn: "desk" } : {}) } };
  }

  /** Opens a visit of the form with the proof feature, or with the trial that is looked at. @param {any} state */
  open(state) {
    const { how, trial } = state;
    const compiled = state.isSound ? state.engine.formIn(JSON.stringify(state.form), JSON.stringify(state.schema), how.language) : null;
    if (!compiled) return;
    this.#begun = trial ?? this.#begin(state);
    const { feature, start } = this.#begun;
    const key = trial?.id ?? feature?.id ?? "new";
    if (key !== this.#tried.key) this.#tried = { key, saved: trial ? JSON.stringify(trial.saved) : "", more: false };
    else if (this.#tried.more) this.#tried = { key, saved: this.#visit.saved(), more: false };
    const all = [JSON.stringify({ ...start, system: state.system }), feature ? JSON.stringify(feature) : "", state.indexes];
    const visit = this.#tried.saved ? compiled.again(...all, this.#tried.saved) : compiled.visit(...all, "");
    if (this.movedTo) visit.moveTo(this.movedTo[0], this.movedTo[1]);
    this.#visit = visit;
    const now = viewOf(visit);
    this.#take(now());
    const draw = () => {
      this.#take(now());
      this.#tried.more = true;
      state.answered();
    };
    const deeds = { ...answering(visit, (deed) => (deed(), draw())), picture: (id) => state.fileUrl(id) };
    ({ act: this.act, taken: this.taken } = remembering(deeds));
  }

  /** Whether the sheet could be filled, with the form as it is now or as it was. */
  get isFilled() {
    return Boolean(this.#visit);
  }
  /** Whether something was tried that can be forgotten. */
  get isTried() {
    return Boolean(this.#tried.saved || this.#tried.more || this.movedTo);
  }
  /** Forgets what was tried. */
  forget() {
    this.#tried = { key: "", saved: "", more: false };
    this.movedTo = null;
  }
  /** What was filled, to be kept. */
  kept() {
    const { feature, start } = this.#begun;
    const { type, id, version, geometry, properties } = feature ?? {};
    return { feature: feature && { type, id, version, geometry, properties }, start, saved: JSON.parse(this.#visit.saved()) };
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
