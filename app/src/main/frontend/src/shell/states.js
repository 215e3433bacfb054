/** The states of visits and stops: core's VisitState and StopState, which a test holds beside these. */
export const VISIT = {
  BEGUN: "begun",
  COMPLETE: "complete",
  HANDED_IN: "handed in",
  WAITING: "waiting",
  ACCEPTED: "accepted",
  SENT_BACK: "sent back",
  SET_ASIDE: "set aside",
};
export const STOP = { TO_DO: "to do", STARTED: "started", DONE: "done", SENT_BACK: "sent back", NO_ACCESS: "no access", GONE: "gone" };
/** What may be visited in a round besides its stops: core's RoundAllows. */
export const ALLOWS = { STOPS: "stops", ANY: "any asset", NEW: "new assets" };
/** Of what a pack is made: core's PackPart. */
export const PACK = {
  PLAN: "plan",
  FORMS: "forms",
  ASSETS: "assets",
  LAST_VISITS: "last visits",
  LOOK_UPS: "look-ups",
  PICTURES: "pictures",
  MAP: "map",
  TILES: "tiles",
  BASEMAP: "basemap",
};
/** The states of a row of a list section: core's RowState. */
export const ROW = { NEW: "new", TO_CONFIRM: "to confirm", STILL: "still there", MENDED: "mended", GONE: "gone" };
/** In which units a project says lengths: core's Units. */
export const UNITS = { METRIC: "metric", FEET: "feet" };
/** From so many seconds on somebody should see to a clock: core's DeviceClock. */
export const CLOCK_OFF_SECONDS = 300;
/** The answer to a visit that could not be kept now and is to be sent again: VisitAnswer.BUSY. */
export const BUSY = "busy";
