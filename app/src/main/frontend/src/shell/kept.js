// What was typed into a form of the desk is not lost when the server refuses it: the page that says why gets it back.
const KEY = "typed-into-forms";

const here = () => location.pathname + location.search;
const pathOf = (form) => new URL(form.action, location.href).pathname;

/** What the server puts there anew, as the revision that a page shows, is nobody's typing; what a page chooses is marked. */
const isServers = (e) => e.type === "hidden" && e.dataset.typed === undefined;

/** What may be kept of a form: no secrets, no files. @param {HTMLFormElement} form @returns {any[]} */
function controls(form) {
  if (form.querySelector("[type=password]")) return [];
  return [...form.elements].filter(
    (/** @type {any} */ e) => e.name && !isServers(e) && !["file", "submit", "button", "fieldset"].includes(e.type),
  );
}

const ticked = (e) => e.type === "checkbox" || e.type === "radio";

/** @param {HTMLFormElement} form @returns {[string, any][]} */
function typed(form) {
  return controls(form).map((e) => [
    e.name,
    ticked(e) ? e.checked : e.multiple ? [...e.selectedOptions].map((/** @type {any} */ o) => o.value) : e.value,
  ]);
}

/** @param {HTMLFormElement} form @param {[string, any][]} values */
function putBack(form, values) {
  const all = controls(form);
  if (all.length !== values.length) return; // another form stands there now
  all.forEach((e, i) => {
    const [name, value] = values[i];
    if (e.name !== name) return;
    if (ticked(e)) e.checked = value;
    else if (e.multiple) for (const o of e.options) o.selected = value.includes(o.value);
    else e.value = value;
    for (const what of ["input", "change"]) e.dispatchEvent(new Event(what, { bubbles: true }));
  });
}

/** Keeps what is sent until the next page, and gives it back there when that says that it was refused. */
export function keepTyped() {
  const kept = JSON.parse(window.sessionStorage.getItem(KEY) ?? "null");
  window.sessionStorage.removeItem(KEY);
  const refused = document.querySelector("main .problem[role=alert]") && !document.querySelector("main .done");
  if (refused && kept?.page === here())
    for (const form of document.forms) if (form.method === "post" && pathOf(form) === kept.path) putBack(form, kept.values);
  addEventListener("submit", (e) => {
    const form = /** @type {HTMLFormElement} */ (e.target);
    if (form.method !== "post") return;
    try {
      window.sessionStorage.setItem(KEY, JSON.stringify({ page: here(), path: pathOf(form), values: typed(form) }));
    } catch {
      window.sessionStorage.removeItem(KEY); // more than a browser keeps: it is as if there were none
    }
  });
}
