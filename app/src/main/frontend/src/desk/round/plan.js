// A round being planned: its forms, its stops in their order, who goes. What was done to the stops can be undone.
import { say } from "../../shell/say.js";
import { ALLOWS } from "../../shell/states.js";
import { Undo } from "../../shell/undo.js";

/** @typedef {{id: string, layer: string, caption: string, at: number[] | null, note: string, pictures: string[]}} Stop */
/** @typedef {{people: string[], stops: string[], lengthM: number, hours: number}} Way */
/** @typedef {{stops: Stop[]}} Step */

export class Plan {
  /** @type {Map<string, Stop>} in the order of visit */
  stops = new Map();
  /** @type {string[]} */
  forms = [];
  /** @type {string[]} nobody for anyone */
  people = [];
  /** @type {Way[]} one for each round that is made */
  ways = [];
  /** @type {import("../../../types/border").RoundSeen["made"]} of what the stops are */
  made = [];
  /** What is typed of it. */
  typed = {
    name: "",
    note: "",
    pictures: /** @type {string[]} */ ([]),
    starts: "",
    due: "",
    expected: "",
    allows: ALLOWS.STOPS,
    tellsPosition: false,
  };
  /** @type {{kmh: number, start: number[] | null, end: number[] | null, back: boolean}} */
  travel = { kmh: 0, start: null, end: null, back: false };
  /** Where assets may be visited that are no stops, GeoJSON; null for anywhere. @type {any} */
  area = null;
  /** How large the pack was when it was asked; null when the plan is another since. @type {import("../../../types/border").RoundPack | null} */
  pack = null;
  /** Whether what is found is taken away. */
  taking = false;
  /** What the map does with the next strokes: "" for looking. */
  tool = "";
  /** Which way of choosing is open. */
  asking = "";
  withinM = 50;
  /** What the last deed brought, and what went wrong. */
  said = "";
  failure = "";
  /** What is looked for in the list. */
  found = "";
  /** The stop that is looked at. */
  shown = "";
  busy = false;
  /** Measures it anew, a little later. @type {() => void} */
  measure = () => {};
  #undo = /** @type {Undo<Step>} */ (new Undo());

  /** @param {string} project @param {import("../../../types/border").Planning} planning @param {() => void} changed */
  constructor(project, planning, changed) {
    this.project = project;
    this.base = `/api/p/${project}/rounds`;
    this.planning = planning;
    this.changed = changed;
    this.travel.kmh = /** @type {any} */ (planning.travel).kmh;
  }

  /** The layers of its forms. */
  get layers() {
    const ids = new Set(this.planning.forms.filter((f) => this.forms.includes(f.id)).map((f) => f.layer));
    return this.planning.layers.filter((l) => ids.has(l.id));
  }
  /** @param {string} id */
  layerName(id) {
    return this.planning.layers.find((l) => l.id === id)?.name ?? "";
  }
  get canUndo() {
    return this.#undo.can;
  }
  /** Whether several rounds are made. */
  get split() {
    return this.ways.length > 1;
  }
  get tooMany() {
    const { most } = this.planning;
    return this.split ? this.ways.some((w) => w.stops.length > most) : this.stops.size > most;
  }
  /** Whether it can be made as it is. */
  get ready() {
    return this.forms.length > 0 && !this.tooMany && (this.stops.size > 0 || this.typed.allows !== ALLOWS.STOPS);
  }
  /** The stops in their order, also over several ways. @returns {string[]} */
  get order() {
    return this.split ? this.ways.flatMap((w) => w.stops) : [...this.stops.keys()];
  }

  /** Does what may fail; it is told then, and nothing else is changed. @template T @param {() => Promise<T>} work @returns {Promise<T | undefined>} */
  async trying(work) {
    this.failure = "";
    this.busy = true;
    this.changed();
    try {
      return await work();
    } catch (e) {
      this.failure = e.message;
      return undefined;
    } finally {
      this.busy = false;
      this.changed();
    }
  }

  /** Remembers the stops as they are, before they are changed. */
  note() {
    this.#undo.note({ stops: [...this.stops.values()] });
  }
  /** Puts other stops in the place of those that are there; a split is no more then. @param {Stop[]} next @param {string} [said] */
  put(next, said = "") {
    this.note();
    this.#set(next, said);
  }
  #set(next, said) {
    this.said = [said, this.split ? say("desk.round.splitGone") : ""].filter(Boolean).join(" ");
    this.stops = new Map(next.map((s) => [s.id, s]));
    this.pack = null;
    this.ways = [];
    if (!this.stops.has(this.shown)) this.shown = "";
    this.measure();
    this.changed();
  }
  undo() {
    const was = this.#undo.back();
    if (was) this.#set(was.stops, "");
  }
  /** @param {string} id */
  drop(id) {
    this.put([...this.stops.values()].filter((s) => s.id !== id));
  }
  clear() {
    if (this.stops.size) this.put([]);
  }
  /** Puts a stop before another, or last for "". @param {string} id @param {string} before */
  move(id, before) {
    if (id === before) return;
    const order = this.order.filter((x) => x !== id);
    order.splice(before ? order.indexOf(before) : order.length, 0, id);
    this.put(order.map((x) => /** @type {Stop} */ (this.stops.get(x))));
  }
  /** What to know at a stop; not drawn anew with each key. @param {string} id @param {Partial<Pick<Stop, "note" | "pictures">>} more @param {boolean} [draw] */
  write(id, more, draw = true) {
    const stop = this.stops.get(id);
    if (stop) this.stops.set(id, { ...stop, ...more });
    this.pack = null;
    if (draw) this.changed();
  }

  /** Takes a form in or out; stops on layers that no form is for any more go. @param {string} id */
  turnForm(id) {
    const now = new Set(this.forms);
    if (!now.delete(id)) now.add(id);
    this.forms = this.planning.forms.map((f) => f.id).filter((f) => now.has(f));
    this.pack = null;
    const layers = new Set(this.layers.map((l) => l.id));
    const left = [...this.stops.values()].filter((s) => layers.has(s.layer));
    if (left.length < this.stops.size) return this.put(left);
    this.measure();
    this.changed();
  }
  /** @param {string} name */
  turnPerson(name) {
    const now = new Set(this.people);
    if (!now.delete(name)) now.add(name);
    this.people = this.planning.people.filter((p) => now.has(p));
    if (this.split) this.#set([...this.stops.values()], "");
    else this.ways = this.ways.map((w) => ({ ...w, people: this.people }));
    this.changed();
  }

  /** Goes through what is chosen. @param {number} step */
  flip(step) {
    const { order } = this;
    const at = order.indexOf(this.shown);
    const next = at < 0 && step < 0 ? order.length - 1 : at + step;
    if (order.length) this.shown = order[(next + order.length) % order.length] ?? "";
    this.changed();
  }
  /** @param {Partial<Plan["travel"]>} more */
  setTravel(more) {
    Object.assign(this.travel, more);
    this.tool = "";
    this.measure();
    this.changed();
  }
  /** Says where what is no stop may be visited. @param {any} area */
  setArea(area) {
    this.area = area;
    this.pack = null;
    this.tool = "";
    this.changed();
  }
  /** @param {Partial<Plan["typed"]>} more */
  type(more) {
    Object.assign(this.typed, more);
    if (more.pictures || more.allows) this.pack = null;
    this.changed();
  }
  /** What is set of the page itself. @param {Partial<Pick<Plan, "taking" | "tool" | "asking" | "withinM" | "found" | "shown" | "failure" | "said">>} more */
  set(more) {
    Object.assign(this, more);
    this.changed();
  }
}
