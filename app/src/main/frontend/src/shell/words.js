// Words for what core names by codes: one list for the desk and the day book.
import { ROW, STOP, VISIT } from "./states.js";
import { say } from "./say.js";

/** @type {Record<string, import("./say.js").MessageKey>} */
const STATES = {
  [VISIT.BEGUN]: "state.begun",
  [VISIT.COMPLETE]: "state.complete",
  [VISIT.HANDED_IN]: "state.handedIn",
  [VISIT.WAITING]: "state.waiting",
  [VISIT.ACCEPTED]: "state.accepted",
  [VISIT.SENT_BACK]: "state.sentBack",
  [VISIT.SET_ASIDE]: "state.setAside",
  [STOP.TO_DO]: "state.toDo",
  [STOP.STARTED]: "state.started",
  [STOP.DONE]: "state.done",
  [STOP.NO_ACCESS]: "state.noAccess",
  [STOP.GONE]: "state.gone",
  [ROW.NEW]: "state.new",
  [ROW.TO_CONFIRM]: "state.toConfirm",
  [ROW.STILL]: "state.still",
  [ROW.MENDED]: "state.mended",
  carried: "state.carried",
  clash: "state.clash",
};

/** The word of a state of a visit, a stop or a row. @param {string} state */
export const stateSaid = (state) => say(STATES[state]);
