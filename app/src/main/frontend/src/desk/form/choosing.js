// Which questions of a form are chosen and open, where the next one goes, and the keys for all of it.
import { say } from "../../shell/say.js";

export class Choosing {
  /** @type {any} */
  form = { title: "", sections: [] };
  openName = "";
  /** The questions that are chosen, in the order of the sheet. @type {string[]} */
  chosen = [];
  /** Sections that are folded, by number. @type {Set<number>} */
  folded = new Set();
  /** @type {(anew?: boolean) => void} */
  changed = () => {};

  /** @param {Record<string, unknown>} edit @returns {Promise<void>} */
  edit(edit) {
    throw new Error("no edit here: " + edit.op);
  }
  get questions() {
    return this.form.sections.flatMap((s) => s.questions);
  }
  labelOf(name) {
    return this.questions.find((q) => q.name === name)?.label ?? name;
  }

  /** Where the next line goes: behind what is chosen, else at the end. */
  get place() {
    const after = this.chosen.at(-1) ?? this.openName;
    const n = this.form.sections.findIndex((s) => s.questions.some((q) => q.name === after));
    return n < 0 ? { section: this.form.sections.length - 1, after: "" } : { section: n, after };
  }
  /** @param {string[]} names */
  choose(names) {
    const all = this.questions.map((q) => q.name);
    this.chosen = all.filter((name) => names.includes(name));
    if (this.chosen.length !== 1 || this.chosen[0] !== this.openName) this.openName = "";
    this.changed();
  }
  chooseToo(name) {
    this.choose(this.chosen.includes(name) ? this.chosen.filter((c) => c !== name) : [...this.chosen, name]);
  }
  /** All from what was chosen to this one. */
  chooseTo(name) {
    const all = this.questions.map((q) => q.name);
    const at = all.indexOf(this.chosen[0] ?? name);
    const to = all.indexOf(name);
    this.choose(all.slice(Math.min(at, to), Math.max(at, to) + 1));
  }
  fold(n) {
    if (!this.folded.delete(n)) this.folded.add(n);
    this.changed();
  }
  putBefore(name) {
    const section = this.form.sections.findIndex((s) => s.questions.some((q) => q.name === name));
    if (this.chosen.length && !this.chosen.includes(name)) this.edit({ op: "put", questions: this.chosen, section, before: name });
  }
  putInto(section) {
    if (this.chosen.length) this.edit({ op: "put", questions: this.chosen, section, before: "" });
  }
  async removeChosen() {
    if (this.chosen.length > 1 && !confirm(say("desk.form.removeSure", { n: this.chosen.length }))) return;
    await this.edit({ op: "remove", questions: this.chosen });
  }

  /** Keys on the list of questions. @param {KeyboardEvent} e */
  key(e) {
    const target = /** @type {HTMLElement} */ (e.target);
    if (["INPUT", "TEXTAREA", "SELECT"].includes(target.tagName)) return;
    const name = target.dataset?.name ?? "";
    const all = this.questions.map((q) => q.name);
    const beside = all[all.indexOf(name) + (e.key === "ArrowDown" ? 1 : -1)];
    const focus = (to) => /** @type {HTMLElement | null} */ (document.querySelector(`[data-name="${to}"]`))?.focus();
    const arrow = e.key === "ArrowDown" || e.key === "ArrowUp";
    if (arrow && e.altKey && name) this.edit({ op: "move", question: name, by: e.key === "ArrowDown" ? 1 : -1 }).then(() => focus(name));
    else if (arrow && beside) {
      if (e.shiftKey) this.choose(this.chosen.includes(name) ? [...this.chosen, beside] : [name, beside]);
      focus(beside);
    } else if (e.key === "Delete" && name) {
      if (!this.chosen.includes(name)) this.choose([name]);
      this.removeChosen();
    } else return;
    e.preventDefault();
  }
}
