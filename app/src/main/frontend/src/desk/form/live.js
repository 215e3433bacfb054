// The sheet, live: the form as it is now, filled with a real feature, drawn and run by the same modules as in the day book.
import { viewOf } from "../../sheet/known.js";
import { keyOf } from "../../sheet/points.js";
import { answering } from "../../sheet/sheet.js";
import { say } from "../../shell/say.js";

export class Live {
  /** @type {any} what the engine says of the sheet, the last sound one while a rule is being mended */
  view = { sections: [], points: [] };
  /** @type {Record<string, Function>} what people can do to the sheet */
  act = {};
  /** @type {Map<string, any>} the questions that are shown, by name; of a list those of its first row */
  shown = new Map();
  /** @type {Map<string, any[]>} */
  #points = new Map();
  /** @type {Map<string, any>} */
  #lists = new Map();

  /** Opens a visit of the form with the proof feature. @param {any} state */
  open(state) {
    const compiled = state.isSound ? state.engine.form(JSON.stringify(state.form), JSON.stringify(state.schema)) : null;
    if (!compiled) return;
    const offset = -new Date().getTimezoneOffset();
    const who = { person: say("desk.form.you"), device: say("desk.form.desk"), startedAt: new Date().toISOString(), offset };
    const start = { ...who, edition: state.edition, system: state.system };
    const visit = compiled.visit(JSON.stringify(start), state.proof ? JSON.stringify(state.proof) : "", state.indexes, "");
    const now = viewOf(visit);
    this.#take(now());
    const draw = () => {
      this.#take(now());
      state.answered();
    };
    this.act = {
      ...answering(visit, (deed) => (deed(), draw())),
      takeAway: (q) => {
        visit.setIn(q.name, q.row ?? "", "null");
        draw();
      },
      picture: (id) => state.fileUrl(id),
    };
  }

  #take(view) {
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
  /** A list section as it stands. */
  list(name) {
    return this.#lists.get(name);
  }
}
