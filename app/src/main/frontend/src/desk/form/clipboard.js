// Questions are copied and pasted, also between forms: as lines that people can read, and whole beside them.
/** The type under which questions lie whole on the clipboard: a JSON array as in the form file. */
const WHOLE = "application/x-whinridge-questions+json";

const typesIn = (target) => Boolean(target?.closest?.("input, textarea, select, [contenteditable]"));

/** What stands for questions on the clipboard. @param {any} state @param {string[]} names */
function copied(state, names) {
  const whole = state.questions.filter((q) => names.includes(q.name));
  return { text: state.engine.formText(JSON.stringify(state.form), JSON.stringify(names)), whole: JSON.stringify(whole) };
}

/** Copies what is chosen where no keys were pressed. What the lines can't say lies beside them for this page. @param {any} state */
export async function copyByHand(state) {
  const { text, whole } = copied(state, state.chosen);
  state.copied = { text, whole };
  await navigator.clipboard?.writeText(text);
}

/** @param {HTMLElement} page @param {any} state */
export function clipboard(page, state) {
  const put = (e) => {
    if (typesIn(e.target) || state.chosen.length === 0 || String(document.getSelection() ?? "").length > 0) return false;
    const { text, whole } = copied(state, state.chosen);
    e.clipboardData.setData("text/plain", text);
    e.clipboardData.setData(WHOLE, whole);
    e.preventDefault();
    return true;
  };
  document.addEventListener("copy", (e) => page.isConnected && put(e));
  document.addEventListener("cut", (e) => page.isConnected && put(e) && state.removeChosen());
  document.addEventListener("paste", (e) => {
    if (!page.isConnected || typesIn(e.target) || !e.clipboardData) return;
    const text = e.clipboardData.getData("text/plain");
    const whole = e.clipboardData.getData(WHOLE) || (state.copied?.text === text ? state.copied.whole : "");
    if (!whole && !text.trim()) return;
    e.preventDefault();
    if (whole) state.insert(JSON.parse(whole));
    else state.typeLines(text);
  });
}
