// Going back over what was done on a page, one step after the other. Steps are kept as text, so that no later change reaches into them.

/** So many steps are kept; older ones are forgotten. */
export const MOST_STEPS = 200;

/** @template T */
export class Undo {
  /** @type {string[]} */
  #back = [];

  /** Whether there is a step to go back to. */
  get can() {
    return this.#back.length > 0;
  }

  /** Remembers how it is now, before something is done. @param {T} now */
  note(now) {
    this.#back.push(JSON.stringify(now));
    if (this.#back.length > MOST_STEPS) this.#back.shift();
  }

  /** How it was before the last step, which is taken off; undefined when there is none. @returns {T | undefined} */
  back() {
    const was = this.#back.pop();
    return was === undefined ? undefined : JSON.parse(was);
  }

  forget() {
    this.#back = [];
  }
}
