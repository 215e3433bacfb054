// The desk's keys. Loaded before the page's body, so that no key is lost while a page is still coming.
// g and a letter goes along the path; on a visit j k a b; ? lists them.
let pending = false;

function press(key) {
  if (key === "?") return /** @type {HTMLDialogElement | null} */ (document.getElementById("keys"))?.showModal();
  const goal = /** @type {HTMLElement | null} */ (document.querySelector(`[data-${pending ? "go" : "key"}="${CSS.escape(key)}"]`));
  pending = key === "g" && !pending;
  if (!goal) return;
  if (!goal.matches("a")) goal.focus();
  if (goal.matches("a, button")) goal.click();
}

const early = [];
document.addEventListener("keydown", (e) => {
  if (document.documentElement.dataset.keys === "off") return;
  if (/** @type {Element} */ (e.target).closest("input, textarea, select") || e.ctrlKey || e.metaKey || e.altKey) return;
  if (document.readyState === "loading") return void early.push(e.key);
  if (document.querySelector(`[data-${pending ? "go" : "key"}="${CSS.escape(e.key)}"]`)) e.preventDefault();
  press(e.key);
});
document.addEventListener("DOMContentLoaded", () => early.splice(0).forEach(press));
