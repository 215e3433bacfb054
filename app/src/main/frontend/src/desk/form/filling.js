// With what the sheet of the workshop is filled, and how it is looked at; nothing of it is stored.
import { Live } from "./live.js";
import { Ruling } from "./ruling.js";

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

  step(by) {
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
