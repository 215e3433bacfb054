// Keeping an open visit on the device while it is filled: a moment after each change, and at once when the page is left.
import { say } from "../../shell/say.js";
import * as store from "../store.js";

/** So long after the last change it is kept, in milliseconds. */
const PAUSE = 250;

/** @param {{visit: any, told: (kind: string, text: string) => void, noted: (text: string) => void}} how */
export function keeping({ visit, told, noted }) {
  /** @type {any} */
  let timer = 0;
  const stop = () => {
    clearTimeout(timer);
    timer = 0;
  };
  async function keep() {
    stop();
    try {
      await visit.keep();
      noted(say("day.kept"));
    } catch (e) {
      if (!(e instanceof store.StoreFull)) throw e;
      told("problem", say("day.full.change"));
      noted(say("day.notKept"));
    }
  }
  const now = () => {
    if (timer) keep();
  };
  document.addEventListener("visibilitychange", now);
  addEventListener("pagehide", now);
  return {
    soon: () => {
      clearTimeout(timer);
      timer = setTimeout(keep, PAUSE);
    },
    stop,
    /** Keeps what is not kept yet, and watches no more. */
    end: async () => {
      if (timer) await keep();
      document.removeEventListener("visibilitychange", now);
      removeEventListener("pagehide", now);
    },
  };
}
