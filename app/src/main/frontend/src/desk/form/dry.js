// The dry run: how the features of the layer would fare under the draft, lot by lot, each time the draft is other than it was.
import { words } from "../../shell/say.js";
import { post } from "../../shell/server.js";

/** So long a draft rests before it is run, in milliseconds. */
const REST = 700;
/** Larger layers are run when somebody asks. */
const BY_ITSELF = 20_000;

export class Dry {
  /** How it fared so far; null before it was run. @type {any} */
  result = null;
  running = false;
  /** The rule whose failing features are shown. */
  open = "";
  #revision = -1;
  #turn = 0;
  #timer = /** @type {any} */ (0);

  /** @param {any} state */
  constructor(state) {
    this.state = state;
  }

  /** Told whenever the draft may be another. */
  changed() {
    const { revision, features, isSound, layer } = this.state;
    if (!layer || !isSound || revision === this.#revision || features > BY_ITSELF) return;
    this.#revision = revision;
    clearTimeout(this.#timer);
    this.#timer = setTimeout(() => this.run(), REST);
  }

  /** Whether the result is of the draft as it is. */
  get isNow() {
    return this.result?.revision === this.state.revision;
  }

  async run() {
    const turn = ++this.#turn;
    const { revision, base } = this.state;
    const all = { revision, features: 0, passed: 0, of: 0, better: 0, worse: 0, failing: new Map(), captions: {} };
    this.running = true;
    this.state.answered();
    try {
      for (let from = /** @type {number | null} */ (0); from !== null;) {
        const lot = await post(base + "/dry-run", { from });
        if (turn !== this.#turn) return;
        if (!lot.report) break;
        add(all, lot);
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

  /** @param {string} key */
  show(key) {
    this.open = this.open === key ? "" : key;
    this.state.answered();
  }
}

/** Adds how a lot fared to what came before. */
function add(all, lot) {
  all.features += lot.report.features;
  all.passed += lot.report.passed;
  all.of = lot.of;
  all.better += lot.better;
  all.worse += lot.worse;
  Object.assign(all.captions, lot.captions);
  for (const f of lot.report.failing) {
    const key = [f.question, f.part, f.kind].join(" ");
    const known = all.failing.get(key) ?? { key, question: f.question, kind: f.kind, message: words(f.message), count: 0, features: [] };
    known.count += f.count;
    known.features.push(...f.features.slice(0, 200 - known.features.length));
    all.failing.set(key, known);
  }
}
