// With what the sheet of the workshop is filled, and how it is looked at; nothing of it is stored.
import { words } from "../../shell/say.js";
import { Live } from "./live.js";
import { Ruling } from "./ruling.js";

/** Through so many features one can step under a condition. */
const MOST_STEPPED = 200;

export class Filling extends Ruling {
  /** The feature with which the form is filled. @type {any} */
  proof = null;
  at = 0;
  features = 0;
  /** @type {any} */
  proofs;
  failure = "";
  /** The trial that the sheet is filled with, with what it keeps; null for the feature. @type {any} */
  trial = null;
  live = new Live();
  /** How the sheet is looked at: how wide, in which language and light, as which visit. */
  how = { width: "desk", language: "", sun: false, fresh: false, office: false, open: false };
  mapShown = false;
  /** Opens a question and brings it into view. @param {string} name */
  goTo(name) {
    throw new Error("no sheet to lead to " + name);
  }

  /** The features among which the proof steps, and what they have in common; null for all. @type {{said: string, ids: string[], of: number} | null} */
  among = null;
  /** The condition under which features are stepped through; "" for none. */
  only = "";

  /** Steps through some features alone; the first of them fills the sheet. @param {string} said @param {string[]} ids @param {number} of how many there are */
  stepAmong(said, ids, of) {
    this.among = { said, ids, of };
    if (ids.length === 0 || ids.includes(this.proof?.id)) return this.changed();
    return this.proofOf(ids[0]);
  }
  /** Steps through all features again. */
  stepAll() {
    Object.assign(this, { among: null, only: "" });
    this.changed();
  }
  /** Steps through the features for which a condition holds. @param {string} rule */
  async stepWhere(rule) {
    this.only = rule;
    if (!rule) return this.stepAll();
    try {
      const { counted, first, holds } = await this.tally(rule, MOST_STEPPED);
      if (counted && this.only === rule)
        await this.stepAmong(
          words(this.ruleView("", rule, "condition").sentence) || rule,
          first.map((f) => f.id),
          holds,
        );
    } catch (e) {
      this.failure = e.message;
      this.changed();
    }
  }

  step(by) {
    if (this.among?.ids.length) {
      const { ids } = this.among;
      const at = ids.indexOf(this.proof?.id);
      return this.proofOf(ids[at < 0 ? 0 : (at + by + ids.length) % ids.length]);
    }
    const to = (this.at + by + this.features) % Math.max(1, this.features);
    return this.#fill(async () => ({ proof: await this.proofs?.at(to), at: to }));
  }
  /** Fills the sheet with a feature. @param {string} id */
  proofOf(id) {
    return this.#fill(() => this.proofs.of(id));
  }
  /** Fills the sheet with a feature and leads to a question. @param {string} id @param {string} question */
  async proofAt(id, question) {
    await this.proofOf(id);
    if (this.questions.some((q) => q.name === question)) this.goTo(question);
  }
  /** Moves the visit's position, without storing anything; look-ups follow. */
  moveTo(lon, lat) {
    this.live.movedTo = [lon, lat];
    this.live.open(this);
    this.changed();
  }
  lookAt(more) {
    if ("fresh" in more) this.trial = null;
    Object.assign(this.how, more);
    this.live.open(this);
    this.changed();
  }
  /** Fills the sheet as a trial was filled. @param {any} trial */
  async fillAs(trial) {
    this.live.forget();
    await this.proofs?.lookAround(trial.feature);
    this.trial = trial;
    this.live.open(this);
    this.changed();
  }
  /** Forgets what was tried; the feature stays. */
  startOver() {
    this.live.forget();
    this.trial = null;
    this.lookAt({});
  }
  turnMap() {
    this.mapShown = !this.mapShown;
    this.changed();
  }
  async #fill(found) {
    this.live.forget();
    this.trial = null;
    try {
      const { proof, at } = await found();
      Object.assign(this, { proof: proof ?? null, at, failure: "" });
    } catch (e) {
      this.failure = e.message;
    }
    this.live.open(this);
    this.changed();
  }
}
