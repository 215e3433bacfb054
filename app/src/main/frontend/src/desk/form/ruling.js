// The rules of the open question: checks, look-up by place, and cures that problems propose.
import { Knowing } from "./knowing.js";

/** Properties into whose text a problem's cure can be put. */
const CURED = ["askWhen", "workOut", "checks"];

export class Ruling extends Knowing {
  /** @type {any[]} */
  problems = [];
  /** @type {any[]} */
  lookups = [];

  get current() {
    return this.questions.find((q) => q.name === this.openName);
  }
  get isSound() {
    return this.problems.length === 0;
  }
  problemsOf(name) {
    return this.problems.filter((p) => p.question === name);
  }
  set(property, value) {
    return this.edit({ op: "set", question: this.openName, property, value });
  }
  get #checks() {
    return this.current.checks ?? [];
  }
  addCheck() {
    this.set("checks", [...this.#checks, { rule: `${this.openName} IS NOT NULL`, message: "", weight: "firm" }]);
  }
  setCheck(n, part, value) {
    this.set(
      "checks",
      this.#checks.map((c, i) => (i === n ? { ...c, [part]: value } : c)),
    );
  }
  removeCheck(n) {
    this.set(
      "checks",
      this.#checks.filter((_, i) => i !== n),
    );
  }
  get lookUp() {
    return (this.current.prefill ?? []).find((p) => p.from === "place");
  }
  /** Looks a field of a layer up by place, before the other sources; "" for no look-up. @param {string} key layer/field */
  setLookUp(key) {
    const rest = (this.current.prefill ?? []).filter((p) => p.from !== "place");
    const [layer, field] = key.split("/");
    const usual = this.lookups.find((l) => l.id === layer)?.lookUp;
    this.set("prefill", key ? [{ from: "place", ...usual, field }, ...rest] : rest);
  }

  /** Whether a problem proposes what can be put into its rule. */
  canCure(p) {
    return Boolean(p.fix) && CURED.includes(p.property);
  }
  /** Puts a cure that a problem proposes into the rule at its place. */
  cure(p) {
    const put = (text) => text.slice(0, p.from) + p.fix + text.slice(p.to);
    if (p.property === "checks") return this.setCheck(p.index, "rule", put(this.#checks[p.index].rule));
    return this.set(p.property, put(this.current[p.property] ?? ""));
  }
}
