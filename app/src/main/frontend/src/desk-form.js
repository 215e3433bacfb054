// The plain form page: questions on the left, changed one property at a time and stored at once; on the right the live sheet, drawn by the
// same module and run by the same engine as in the day book, filled with a real feature.
import { post, request } from "./api.js";
import { loadEngine } from "./engine.js";
import { Proof } from "./proof.js";
import { answering, makeSheet, openWords, trail } from "./sheet.js";

const TYPES = [["text", "Text"], ["long_text", "Long text"], ["whole", "Whole number"], ["decimal", "Decimal number"], ["counter", "Counter"], ["yes_no", "Yes / no"], ["choice", "One choice"], ["grade", "Grade scale"], ["choices", "Many choices"], ["ranked", "Ranked choice"], ["date", "Date"], ["time", "Time of day"], ["date_time", "Date and time"], ["duration", "Duration in minutes"], ["photo", "Photo"], ["read", "Text to read"]];

export function formPage() {
  // the engine's objects stay outside the component: Alpine would wrap them
  const own = {};
  return {
    form: { title: "", sections: [] }, problems: [], known: [], lookups: [], proof: null, features: 0, at: 0, openName: "", failure: "", saved: "", types: TYPES, edition: 0, newLabel: "", newType: "text",
    async init() {
      const { project, form } = this.$el.dataset;
      this.base = `/api/p/${project}/forms/${form}`;
      try {
        const s = await (await request(this.base)).json();
        own.engine = await loadEngine();
        this.raw = { schema: s.schema, system: s.system, project };
        this.lookups = s.lookups;
        this.features = s.features;
        own.indexes = own.engine.layers();
        own.proof = new Proof({ base: this.base, project, first: s.proof, count: s.features, lookups: s.lookups, indexes: own.indexes });
        this.proof = (await own.proof.at(0)) ?? null;
        this.take(s);
        this.$el.dataset.ready = "true";
      } catch (e) {
        this.failure = e.message;
      }
    },
    take(s) {
      this.revision = s.revision;
      this.edition = s.edition;
      this.form = s.form;
      this.problems = s.problems;
      this.known = s.notes;
      this.live();
    },
    /** One edit at a time, in the order they were made. */
    edit(edit) {
      this.queue = (this.queue ?? Promise.resolve()).then(async () => {
        this.saved = "storing…";
        try {
          this.take(await post(this.base + "/edits", { revision: this.revision, edit }));
          this.failure = "";
          this.saved = "stored";
        } catch (e) {
          this.failure = e.message;
          this.saved = "";
          this.form = { ...this.form };
        }
      });
      return this.queue;
    },
    set(property, value) { return this.edit({ op: "set", question: this.openName, property, value }); },
    get lines() {
      return this.form.sections.flatMap((s, i) => s.questions.map((q, k) => ({ ...q, first: k === 0, section: s.title, open: q.name === this.openName, wrong: this.problems.some((p) => p.question === q.name), type: TYPES.find((t) => t[0] === q.type)?.[1] ?? q.type, notes: notes(q), index: i })));
    },
    get current() { return this.form.sections.flatMap((s) => s.questions).find((q) => q.name === this.openName) ?? {}; },
    get isOpen() { return this.current.name !== undefined; },
    get label() { return this.current.label ?? ""; },
    get hint() { return this.current.hint ?? ""; },
    get type() { return this.current.type ?? "text"; },
    get unit() { return this.current.unit ?? ""; },
    get need() { return this.current.need ?? "free"; },
    get askWhen() { return this.current.askWhen ?? ""; },
    get workOut() { return this.current.workOut ?? ""; },
    get readOnly() { return this.current.readOnly ?? false; },
    get writesTo() { return this.current.writesTo ? `writes to the field ${this.current.writesTo}` : "kept on the visit"; },
    get checks() { return (this.current.checks ?? []).map((c, i) => ({ ...c, index: i, soft: c.weight === "soft" })); },
    get lookup() { return (this.current.prefill ?? []).find((p) => p.from === "place") ?? null; },
    get lookupKey() { return this.lookup ? `${this.lookup.layer}/${this.lookup.field}` : ""; },
    get lookupChoices() { return this.lookups.flatMap((l) => l.schema.fields.map((f) => ({ key: `${l.id}/${f.name}`, label: `${f.label}, from ${l.name}` }))); },
    get mine() { return this.problems.filter((p) => p.question === this.openName).map((p) => ({ ...p, said: `${p.part}: ${p.message}`, hasFix: Boolean(p.fix) && ["askWhen", "workOut", "checks"].includes(p.property) })); },
    get sound() { return this.problems.length === 0; },
    get wrongCount() { return this.problems.length === 1 ? "1 thing keeps it from being published" : `${this.problems.length} things keep it from being published`; },
    get nextEdition() { return `Publish edition ${this.edition + 1}`; },
    get names() { return this.form.sections.flatMap((s) => s.questions.map((q) => q.name)).join(", "); },
    openLine(event) {
      const name = event.currentTarget.dataset.name;
      this.openName = this.openName === name ? "" : name;
    },
    openProblem(event) { this.openName = event.currentTarget.dataset.name; },
    up() { this.edit({ op: "move", question: this.openName, by: -1 }); },
    down() { this.edit({ op: "move", question: this.openName, by: 1 }); },
    removeQuestion() {
      const question = this.openName;
      this.openName = "";
      this.edit({ op: "remove", question });
    },
    setLabel(e) { this.set("label", e.target.value); },
    setHint(e) { this.set("hint", e.target.value); },
    setType(e) { this.set("type", e.target.value); },
    setUnit(e) { this.set("unit", e.target.value); },
    setNeed(e) { this.set("need", e.target.value); },
    setAskWhen(e) { this.set("askWhen", e.target.value.trim()); },
    setWorkOut(e) { this.set("workOut", e.target.value.trim()); },
    setTitle(e) { this.edit({ op: "title", value: e.target.value }); },
    setReadOnly(e) { this.set("readOnly", e.target.checked); },
    addCheck() { this.set("checks", [...(this.current.checks ?? []), { rule: `${this.openName} IS NOT NULL`, message: "", weight: "firm" }]); },
    setCheck(e) {
      const { index, part } = e.target.dataset;
      const value = part === "weight" ? (e.target.checked ? "soft" : "firm") : e.target.value.trim();
      this.set("checks", (this.current.checks ?? []).map((c, i) => (i === Number(index) ? { ...c, [part]: value } : c)));
    },
    removeCheck(e) {
      const gone = Number(e.currentTarget.dataset.index);
      this.set("checks", (this.current.checks ?? []).filter((_, i) => i !== gone));
    },
    setLookup(e) {
      const rest = (this.current.prefill ?? []).filter((p) => p.from !== "place");
      const [layer, field] = e.target.value.split("/");
      const usual = this.lookups.find((l) => l.id === layer)?.lookUp;
      this.set("prefill", e.target.value ? [{ from: "place", ...usual, field }, ...rest] : rest);
    },
    /** Puts a fix that a problem proposes into the rule at its place. */
    async fix(e) {
      const p = this.problems[this.problems.findIndex((x) => x.message === e.currentTarget.dataset.message)];
      const put = (text) => text.slice(0, p.from) + p.fix + text.slice(p.to);
      if (p.property === "askWhen") return this.set("askWhen", put(this.askWhen));
      if (p.property === "workOut") return this.set("workOut", put(this.workOut));
      const n = p.index;
      return this.set("checks", (this.current.checks ?? []).map((c, i) => (i === n ? { ...c, rule: put(c.rule) } : c)));
    },
    add() {
      const label = this.newLabel.trim();
      if (!label) return;
      const { name } = JSON.parse(own.engine.fields(JSON.stringify({ op: "name", label })));
      this.edit({ op: "add", section: this.form.sections.length - 1, question: { name, label, type: this.newType } }).then(() => {
        if (!this.failure) this.openName = name;
      });
      this.newLabel = "";
    },
    nextProof() { this.step(1); },
    previousProof() { this.step(-1); },
    async step(by) {
      const to = (this.at + by + this.features) % Math.max(1, this.features);
      try {
        this.proof = (await own.proof.at(to)) ?? null;
        this.at = to;
        this.failure = "";
      } catch (e) {
        this.failure = e.message;
      }
      this.answers = "";
      this.live();
    },
    get proofName() { return this.proof ? `${this.proof.caption || "(no caption)"}, ${this.at + 1} of ${this.features}` : "no features yet"; },
    /** The sheet as the day book will show it. */
    live() {
      const box = this.$refs.sheet;
      const compiled = this.problems.length ? null : own.engine.form(JSON.stringify(this.form), JSON.stringify(this.raw.schema));
      if (!compiled) return; // the last sound sheet stays in view while a rule is being mended
      const start = { person: "you", device: "desk", startedAt: new Date().toISOString(), offset: -new Date().getTimezoneOffset(), edition: this.edition, system: this.raw.system };
      const visit = compiled.visit(JSON.stringify(start), this.proof ? JSON.stringify(this.proof) : "", own.indexes, "");
      const redraw = () => {
        const view = JSON.parse(visit.view());
        sheet.draw(view);
        this.$refs.trail.replaceChildren(trail(view), document.createTextNode(" " + openWords(view.points)));
      };
      const act = (deed) => { deed(); redraw(); };
      const inner = document.createElement("div");
      box.replaceChildren(inner);
      const sheet = makeSheet(inner, {
        ...answering(visit, act),
      });
      redraw();
    },
  };
}

function notes(q) {
  const out = [];
  if (q.need && q.need !== "free") out.push(q.need);
  if (q.askWhen) out.push("asked when…");
  if (q.checks?.length) out.push(q.checks.length === 1 ? "1 check" : `${q.checks.length} checks`);
  if (q.workOut) out.push("worked out");
  if (q.prefill?.some((p) => p.from === "place")) out.push("looked up");
  return out.join(" · ");
}
