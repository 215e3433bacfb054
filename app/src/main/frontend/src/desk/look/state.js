// The look that is being made: how it is changed, tried on the map, taken back and saved.
import { say } from "../../shell/say.js";
import { getJson, post, token } from "../../shell/server.js";
import { Undo } from "../../shell/undo.js";
import { usualSymbol } from "./symbols.js";

/** So long after a change it is tried, in milliseconds. */
const PAUSE = 120;

export const numeric = (f) => f.type === "whole" || f.type === "decimal";
const copy = (o) => JSON.parse(JSON.stringify(o));

export class LookState {
  /** @type {(anew?: boolean) => void} */
  changed;
  /** @type {boolean} */
  may;
  /** @type {string} */
  base;
  /** @type {any} */
  tried;
  /** @type {any} */
  answered;
  /** @type {any} */
  fields;
  /** A rule that could be asked of this layer. */
  ruleLike = "";
  /** @type {string} */
  kind;
  look;
  revision;
  /** What the server says of the look that was tried last: plan, counts, problems. */
  shown;
  ground = [];
  /** Which entry is open; -1 for none. */
  open = -1;
  failure = "";
  told = "";
  undone = new Undo();
  #saved;
  /** What was chosen and not yet answered, so that a second choice does not lose the first. */
  #asked = {};
  #turn = 0;
  /** @type {any} */
  #waiting;

  /** @param {{base: string, first: any, may: boolean, kind: string, fields: any[], ruleLike: string, changed: () => void, tried: (key: string, plan: any) => Promise<void>, answered: (turn: number) => void}} how */
  constructor({ base, first, may, kind, fields, ruleLike, changed, tried, answered }) {
    Object.assign(this, { base, may, kind, fields, ruleLike, changed, tried, answered });
    this.look = first.look;
    this.revision = first.revision;
    this.shown = first;
    this.#saved = JSON.stringify(first.look);
  }

  get isDirty() {
    return JSON.stringify(this.look) !== this.#saved;
  }
  get entries() {
    return this.look.by === "one" ? [this.look.other] : [...this.look.classes, this.look.other];
  }
  entryAt(i) {
    return i < this.look.classes.length && this.look.by !== "one" ? this.look.classes[i] : this.look.other;
  }
  isOther(i) {
    return this.look.by !== "one" && i === this.look.classes.length;
  }

  fail(message) {
    this.failure = message;
    this.changed();
  }
  openEntry(i) {
    this.open = this.open === i ? -1 : i;
    this.changed();
  }

  /** Changes the look, remembers how it was, and tries it. @param {(look: any) => void} how */
  change(how) {
    if (!this.may) return;
    this.undone.note(this.look);
    how(this.look);
    this.told = "";
    this.changed();
    this.tryIt();
  }
  undo() {
    this.look = this.undone.back() ?? this.look;
    this.told = "";
    this.changed();
    this.tryIt();
  }

  tryIt() {
    clearTimeout(this.#waiting);
    this.#waiting = setTimeout(() => this.send("try", {}), PAUSE);
  }

  /** Sends the look to be tried or proposed; the newest answer counts. @param {"try" | "propose"} what @param {Record<string, unknown>} more */
  async send(what, more) {
    const mine = ++this.#turn;
    try {
      const got = await post(`${this.base}/look/${what}`, { look: this.look, ground: this.ground, ...more });
      if (mine !== this.#turn) return;
      this.failure = "";
      this.shown = got;
      if (what === "propose") {
        this.undone.note(this.look);
        this.look = got.look;
        this.open = -1;
      }
      this.changed();
      await this.tried(got.key, got.plan);
    } catch (e) {
      this.fail(e.message);
    }
    this.answered(this.#turn);
  }

  /** Asks for entries made from the layer's values. @param {Record<string, unknown>} more */
  async propose(more) {
    const mine = (this.#asked = { ...this.#asked, ...more });
    const { by, field = "", method = "natural", ramp = "", classes } = this.look;
    await this.send("propose", { by, field, method, classes: classes.length || 5, ramp, ...mine });
    if (mine === this.#asked) this.#asked = {};
  }

  /** Sorts features another way, by the usual field for it. @param {string} by */
  sortBy(by) {
    if (this.look.by === by) return;
    const coded = this.fields.find((f) => f.codes.length > 0) ?? this.fields[0];
    const usual = by === "code" ? coded : by === "class" ? this.fields.find(numeric) : null;
    if (by === "class" && !usual) return this.fail(say("desk.look.noNumbers"));
    this.propose({ by, field: usual?.name ?? "", ramp: by === "class" ? "peat" : "assorted", classes: 5, method: "natural" });
  }

  addRule() {
    this.change((l) => {
      const stack = copy(l.other.stack.length ? l.other.stack : [usualSymbol(this.kind)]);
      l.classes.push({ label: say("desk.look.ruleN", { n: l.classes.length + 1 }), rule: "", stack });
      this.open = l.classes.length - 1;
    });
  }

  async save() {
    try {
      this.revision = (await post(`${this.base}/look`, { look: this.look, revision: this.revision })).revision;
      this.#saved = JSON.stringify(this.look);
      this.told = say("desk.savedForAll");
      this.failure = "";
      this.changed();
    } catch (e) {
      this.fail(e.message);
    }
  }

  /** Takes an icon in; the entry's mark gets it. @param {File} file @param {number} i */
  async ownIcon(file, i) {
    try {
      const name = encodeURIComponent(file.name.replace(/\.svg$/i, ""));
      const headers = { "Content-Type": "application/octet-stream", ...token() };
      const got = await getJson(`${this.base}/look/icon?name=${name}`, { method: "POST", body: file, headers });
      const id = "own-" + Math.random().toString(36).slice(2, 10);
      this.change((l) => {
        (l.icons ??= {})[id] = got.icon;
        const mark = this.entryAt(i).stack.find((s) => s.draw === "mark");
        if (mark) mark.icon = id;
        else this.entryAt(i).stack.push({ ...usualSymbol("point"), icon: id });
      });
      if (got.notes.length) this.told = say("desk.look.cleaned", { what: got.notes.join("; ") });
      this.changed();
    } catch (e) {
      this.fail(e.message);
    }
  }

  /** The look as an SLD file; gives its text. @returns {Promise<string | undefined>} */
  async sld() {
    try {
      const got = await post(`${this.base}/look/sld`, { look: this.look });
      this.told = got.notes.length ? say("desk.look.sldBut", { what: got.notes.join("; ") }) : say("desk.look.sldAll");
      this.changed();
      return got.xml;
    } catch (e) {
      return void this.fail(e.message);
    }
  }

  /** Takes a look out of a file. @param {File} file */
  async bringIn(file) {
    try {
      const got = await post(`${this.base}/look/try`, { look: parsed(await file.text()), ground: this.ground });
      this.undone.note(this.look);
      Object.assign(this, { look: got.look, shown: got, failure: "", told: say("desk.look.broughtIn") });
      this.changed();
      await this.tried(got.key, got.plan);
    } catch (e) {
      this.fail(e.message);
    }
  }
}

function parsed(text) {
  try {
    return JSON.parse(text);
  } catch {
    throw new Error(say("desk.look.noJson"));
  }
}
