// Which questions of a form are chosen and open, where the next one goes, and the keys for all of it.
import { say } from "../../shell/say.js";
import { copyByHand } from "./clipboard.js";

export class Choosing {
  /** @type {any} */
  form = { title: "", sections: [] };
  openName = "";
  /** The questions that are chosen, in the order of the sheet. @type {string[]} */
  chosen = [];
  /** Sections that are folded, by number. @type {Set<number>} */
  folded = new Set();
  /** What was copied by hand. @type {{text: string, whole: string} | null} */
  copied = null;
  /** @type {(anew?: boolean) => void} */
  changed = () => {};
  /** Draws what an answer on the sheet changes. @type {() => void} */
  answered = () => {};

  /** @param {Record<string, unknown> | (() => Record<string, unknown>)} edit @returns {Promise<void>} */
  edit(edit) {
    throw new Error("no edit here: " + JSON.stringify(edit));
  }
  get questions() {
    return this.form.sections.flatMap((s) => s.questions);
  }
  labelOf(name) {
    const own = this.questions.find((q) => q.name === name) ?? this.form.rules?.find((r) => r.name === name);
    return own?.label ?? this.form.sections.find((s) => name && s.name === name)?.title ?? name;
  }

  /** The section that was begun last and has nothing yet, by its place; none while something else was chosen since. */
  begun = Infinity;

  /** Where the next line goes: behind what is chosen, into a section that was just begun, else at the end. */
  get place() {
    const after = this.chosen.at(-1) ?? this.openName;
    const n = this.form.sections.findIndex((s) => s.questions.some((q) => q.name === after));
    return n < 0 ? { section: Math.min(this.begun, this.form.sections.length - 1), after: "" } : { section: n, after };
  }
  /** @param {string[]} names */
  choose(names) {
    const wanted = new Set(names);
    this.begun = Infinity;
    this.chosen = this.questions.map((q) => q.name).filter((name) => wanted.has(name));
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
  async removeChosen() {
    if (this.chosen.length > 1 && !confirm(say("desk.form.removeSure", { n: this.chosen.length }))) return;
    await this.edit({ op: "remove", questions: this.chosen });
  }
  copyChosen() {
    return copyByHand(this);
  }
  /** The chosen questions become a section, whose title is ready to be typed. */
  async sectionOfChosen() {
    const first = this.chosen[0];
    await this.edit({ op: "section.of", questions: this.chosen, title: "" });
    const made = /** @type {HTMLElement | null} */ (document.querySelector(`[data-line="${first}"]`))?.closest(".form-section");
    /** @type {HTMLElement | null | undefined} */ (made?.querySelector("[data-part=section-title]"))?.focus();
  }
  blockOfChosen() {
    return this.edit({ op: "block.of", questions: this.chosen, title: say("desk.form.newBlock") });
  }

  /** Keys on the sheet's lines; what is typed into boxes is left alone. @param {KeyboardEvent} e */
  key(e) {
    const target = /** @type {HTMLElement} */ (e.target);
    if (["INPUT", "TEXTAREA", "SELECT"].includes(target.tagName) || e.ctrlKey || e.metaKey) return;
    const name = /** @type {HTMLElement | null} */ (target.closest("[data-line]"))?.dataset.line ?? "";
    const all = this.questions.map((q) => q.name);
    const section = this.form.sections.findIndex((s) => s.questions.some((q) => q.name === name));
    const beside = all[all.indexOf(name) + (e.key === "ArrowDown" ? 1 : -1)];
    const focus = (to) => /** @type {HTMLElement | null} */ (document.querySelector(`[data-name="${to}"]`))?.focus();
    const arrow = e.key === "ArrowDown" || e.key === "ArrowUp";
    // single keys can be switched off, as everywhere at the desk
    if (e.key.length === 1 && document.documentElement.dataset.keys === "off") return;
    const own = () => this.chosen.includes(name) || this.choose([name]);
    if (arrow && e.altKey && name) this.edit({ op: "move", question: name, by: e.key === "ArrowDown" ? 1 : -1 }).then(() => focus(name));
    else if (arrow && beside) {
      if (e.shiftKey) this.choose(this.chosen.includes(name) ? [...this.chosen, beside] : [name, beside]);
      focus(beside);
    } else if (e.key === "Delete" && name) {
      own();
      this.removeChosen();
    } else if (e.key === "s" && name) {
      own();
      this.sectionOfChosen();
    } else if (e.key === "b" && name) {
      own();
      this.blockOfChosen();
    } else if (e.key === "S" && name) this.edit({ op: "section.dissolve", section });
    else if (e.key === "f" && name) this.fold(section);
    else return;
    e.preventDefault();
    e.stopPropagation();
  }
}
