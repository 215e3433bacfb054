// The dry run: how the features of the layer would fare under the draft, lot by lot, each time the draft is other than it was.
import { words } from "../../shell/say.js";
import { post } from "../../shell/server.js";
import { rested } from "./rested.js";

/** Larger layers are run when somebody asks. */
const BY_ITSELF = 20_000;

export class Dry {
  /** How it fared so far; null before it was run. @type {any} */
  result = null;
  running = false;
  /** The rule whose failing features are shown. */
  open = "";
  #turn = 0;
  #later;

  /** @param {any} state */
  constructor(state) {
    this.state = state;
    this.#later = rested(state, () => this.run());
  }

  /** Told whenever the draft may be another. */
  changed() {
    const { features, isSound, layer, builds } = this.state;
    if (builds && layer && isSound && features <= BY_ITSELF) this.#later();
  }

  /** Whether the result is of the draft as it is. */
  get isNow() {
    return this.result?.revision === this.state.revision;
  }

  async run() {
    const turn = ++this.#turn;
    const { revision, base } = this.state;
    const all = { ...nothingYet(), revision, better: 0, worse: 0 };
    this.running = true;
    this.state.answered();
    try {
      for (let from = /** @type {number | null} */ (0); from !== null;) {
        const lot = await post(base + "/dry-run", { from });
        if (turn !== this.#turn) return;
        if (!lot.report) break;
        add(all, lot);
        all.better += lot.better;
        all.worse += lot.worse;
        Object.assign(all.named, lot.named);
        this.result = all;
        from = lot.next;
        this.state.answered();
      }
    } catch (e) {
      this.state.failure = e.message;
    } finally {
      if (turn === this.#turn) {
        this.running = false;
        this.state.answered();
      }
    }
  }

  /** The features that fail the opened rule, as far as they are named: what each is called and where it is. @returns {any[]} */
  get shown() {
    const rule = this.result?.failing.get(this.open);
    return rule?.features.map((id) => ({ id, question: rule.question, ...this.result.named[id] })) ?? [];
  }

  /** @param {string} key */
  show(key) {
    this.open = this.open === key ? "" : key;
    this.state.answered();
  }
}

/** Before any lot has come. @returns {any} */
export const nothingYet = () => ({ features: 0, passed: 0, of: 0, failing: new Map(), named: {} });

/** Adds how a lot fared to what came before. */
export function add(all, lot) {
  all.features += lot.report.features;
  all.passed += lot.report.passed;
  all.of = lot.of;
  for (const f of lot.report.failing) {
    const key = [f.question, f.part, f.kind].join(" ");
    const known = all.failing.get(key) ?? { key, question: f.question, kind: f.kind, message: words(f.message), count: 0, features: [] };
    known.count += f.count;
    known.features.push(...f.features.slice(0, 200 - known.features.length));
    all.failing.set(key, known);
  }
}
