// What is done once a draft is other than it was, and rests.

/** So long it rests, in milliseconds. */
const REST = 700;

/** @param {{revision: number}} state @param {() => void} deed @returns {() => void} told whenever the draft may be another */
export function rested(state, deed) {
  let revision = -1;
  let timer = /** @type {any} */ (0);
  return () => {
    if (state.revision === revision) return;
    revision = state.revision;
    clearTimeout(timer);
    timer = setTimeout(deed, REST);
  };
}
