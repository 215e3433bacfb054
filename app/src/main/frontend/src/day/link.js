// Whether the office may be asked: there is a link, and nobody has switched it off on this device.
import { say } from "../shell/say.js";
import { book } from "./book.js";

const KEY = "whinridge-link-off";

/** Whether somebody works without a link by choice; handing in and fetching ask then, and go once. */
export const isSwitchedOff = () => localStorage.getItem(KEY) === "true";

/** @param {boolean} off */
export function switchOff(off) {
  if (off) localStorage.setItem(KEY, "true");
  else localStorage.removeItem(KEY);
}

/** Whether the office is asked by itself. */
export const asksByItself = () => navigator.onLine && !isSwitchedOff();

/** Whether what somebody pressed may go out now. */
export const mayGoOut = () => !isSwitchedOff() || window.confirm(say("day.link.askOnce"));

/** How it stands with the link, in words. */
export function linkSaid() {
  if (isSwitchedOff()) return say("day.link.off");
  return book.offline || !navigator.onLine ? say("day.link.none") : say("day.link.there");
}
