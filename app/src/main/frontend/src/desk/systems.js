// Coordinate systems: a field that finds them by name or number, and shows the name of the one that is chosen.
import { getJson } from "../shell/server.js";
import { html, render } from "../shell/view.js";

/** So long after the last key it is looked for, in milliseconds. */
const PAUSE = 250;

/** Makes an input offer systems; `changed(code)` is called when another one was chosen. @param {HTMLInputElement} input @param {string} from the address that finds them @param {(code: string) => void} [changed] */
export function systemField(input, from, changed = () => {}) {
  const list = /** @type {HTMLElement} */ (document.getElementById(input.getAttribute("list") ?? ""));
  const name = input.closest("section, form, .part")?.querySelector(".system-name");
  /** @type {any} */
  let timer;
  const find = async () => {
    const q = input.value.trim();
    const { systems } = await getJson(`${from}?q=${encodeURIComponent(q)}`);
    render(
      systems.map((s) => html`<option value=${s.code}>${s.name}</option>`),
      list,
    );
    const hit = systems.find((s) => s.code === q || s.code === "EPSG:" + q);
    if (name) name.textContent = hit ? hit.name + "." : "";
    if (hit || q === "") changed(hit?.code ?? "");
  };
  const quietly = () => void find().catch(() => {}); // no link: what was typed is still sent and checked
  input.addEventListener("input", () => {
    clearTimeout(timer);
    timer = setTimeout(quietly, PAUSE);
  });
  quietly();
}

/** The form of outputs. @param {HTMLFormElement} form */
export const takeOutPage = (form) =>
  systemField(/** @type {HTMLInputElement} */ (form.querySelector("#system")), `/api/p/${form.dataset.project ?? ""}/systems`);
