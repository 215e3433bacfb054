// The view of an open visit, put together of what changed: a question that is as it was is the very object that it was.
import { inWords, say } from "../shell/say.js";
import { keyOf } from "./points.js";

/** @param {{changes: (since: number) => string}} visit an open visit of the engine @returns {() => any} gives the view as it is now */
export function viewOf(visit) {
  /** @type {Map<string, any>} */
  const known = new Map();
  let turn = 0;
  const put = (questions, row) =>
    questions.map((q) => {
      if (typeof q === "string") return known.get(keyOf({ name: q, row }));
      known.set(keyOf(q), q);
      return q;
    });
  return () => {
    const view = inWords(visit.changes(turn));
    view.caption ||= say("sheet.newFeature");
    turn = view.turn;
    for (const s of view.sections) {
      s.questions = put(s.questions);
      for (const r of s.rows ?? []) r.questions = put(r.questions, r.id);
    }
    return view;
  };
}
