// How well a new password keeps, in words, while it is typed.
import { postForm } from "../shell/server.js";
import { say } from "../shell/say.js";

/** After so many milliseconds without a key the office is asked. */
const STILL = 250;

/** @typedef {"weak" | "fair" | "good" | "strong" | ""} Strength */

/** @param {HTMLElement} told */
export function passwordStrength(told) {
  const input = /** @type {HTMLInputElement} */ (document.getElementById("password"));
  const name = /** @type {HTMLInputElement | null} */ (document.getElementById("name"));
  /** @type {ReturnType<typeof setTimeout> | undefined} */
  let waiting;
  const ask = async () => {
    const typed = input.value;
    const fields = new FormData();
    fields.set("password", typed);
    fields.set("name", name?.value ?? input.dataset.of ?? "");
    const { strength } = /** @type {{strength: Strength}} */ (await postForm("/api/password-strength", fields));
    if (input.value === typed) told.textContent = strength ? say(`password.strength.${strength}`) : "";
  };
  const typed = () => {
    clearTimeout(waiting);
    waiting = setTimeout(ask, STILL);
  };
  input.addEventListener("input", typed);
  if (input.value) typed(); // what was typed while the page was coming
}
