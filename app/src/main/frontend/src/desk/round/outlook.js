// What a round would be: of what it is made, in which order, how long; and making it.
import { say } from "../../shell/say.js";
import { getJson, post } from "../../shell/server.js";
import { ALLOWS } from "../../shell/states.js";
import { findAgain } from "./choosing.js";
import { Plan } from "./plan.js";

/** So long after a change it is measured anew, in milliseconds. */
const REST = 250;

/** How it travels, as the server reads it. @param {Plan["travel"]} travel */
function travelSaid({ kmh, start, end, back }) {
  return { kmh, ...(start && { start }), ...(back ? start && { end: start } : end && { end }) };
}

/** @param {any} travel core's Travel */
function travelOf({ kmh, start = null, end = null }) {
  const back = Boolean(start && end) && String(start) === String(end);
  return { kmh, start, end: back ? null : end, back };
}

export class Outlook {
  #asked = 0;
  /** @type {any} */
  #rest;

  /** @param {Plan} plan */
  constructor(plan) {
    this.plan = plan;
    plan.measure = () => this.#soon();
  }
  #soon() {
    clearTimeout(this.#rest);
    this.#asked++; // an answer that is on its way is of the stops as they were
    this.#rest = setTimeout(() => this.#measure().catch((e) => this.plan.set({ failure: e.message })), REST);
  }
  /** @param {boolean} order @param {number} people @returns {Promise<import("../../../types/border").RoundSeen>} */
  #ask(order, people) {
    const { plan } = this;
    const body = { forms: plan.forms, stops: [...plan.stops.keys()], travel: travelSaid(plan.travel), order, people };
    return post(`${plan.base}/outlook`, body);
  }

  /** Measures the round as it stands. */
  async #measure() {
    const { plan } = this;
    const asked = this.#asked;
    if (plan.forms.length === 0 || plan.stops.size === 0 || plan.stops.size > plan.planning.most) {
      Object.assign(plan, { made: [], ways: [] });
      return plan.changed();
    }
    const seen = await this.#ask(false, 1);
    if (asked !== this.#asked) return;
    plan.made = seen.made;
    if (!plan.split) this.#take(seen, [plan.people]);
    plan.changed();
  }
  #take(seen, people) {
    const { plan } = this;
    plan.ways = seen.ways.map((w, i) => ({ ...w, people: people[i] ?? [] }));
    const kept = plan.ways.flatMap((w) => w.stops);
    plan.stops = new Map(kept.map((id) => [id, /** @type {import("./plan.js").Stop} */ (plan.stops.get(id))]));
    if (seen.gone) plan.said = say("desk.round.gone", { n: seen.gone });
  }

  /** Finds the shortest way for one person, or the best split over all who go. @param {boolean} split */
  findWay(split) {
    const { plan } = this;
    clearTimeout(this.#rest);
    const asked = ++this.#asked;
    return plan.trying(async () => {
      const seen = await this.#ask(true, split ? plan.people.length : 1);
      if (asked !== this.#asked) return;
      plan.note();
      Object.assign(plan, { made: seen.made, said: "" });
      this.#take(seen, split ? plan.people.map((p) => [p]) : [plan.people]);
    });
  }
}

/** The plan as it is sent. @param {Plan} plan */
function sent(plan) {
  const { starts, due, expected, ...typed } = plan.typed;
  const stop = (id) => ({ id, note: plan.stops.get(id)?.note ?? "", pictures: plan.stops.get(id)?.pictures ?? [] });
  const parts = plan.split
    ? plan.ways.map((w) => ({ people: w.people, stops: w.stops.map(stop) }))
    : [{ people: plan.people, stops: plan.order.map(stop) }];
  const days = { starts: starts || null, due: due || null, expected: expected ? Number(expected) : null };
  const area = typed.allows === ALLOWS.STOPS ? null : plan.area;
  return { ...typed, ...days, area, forms: plan.forms, travel: travelSaid(plan.travel), parts };
}

/** Makes the rounds; gives where they are. @param {Plan} plan @returns {Promise<string | undefined>} */
export const make = (plan) => plan.trying(async () => (await post(plan.base, sent(plan))).address);

/** Asks how large the pack would be. @param {Plan} plan */
export const measurePack = (plan) =>
  plan.trying(async () => {
    plan.pack = await post(`${plan.base}/pack`, sent(plan));
  });

/** What is kept of a plan until it is made. @param {Plan} plan */
export function keepable({ forms, people, typed, area, travel, stops }) {
  return { forms, people, typed, area, travel, stops: [...stops.values()].map(({ id, note, pictures }) => ({ id, note, pictures })) };
}

/** Goes on with a plan that was kept; forms and people that are not there any more are left out. @param {Plan} plan @param {ReturnType<typeof keepable>} was */
export async function goOn(plan, { forms, people, typed, area, travel, stops }) {
  plan.forms = plan.planning.forms.map((f) => f.id).filter((f) => forms.includes(f));
  plan.people = plan.planning.people.filter((p) => people.includes(p));
  Object.assign(plan.typed, typed);
  Object.assign(plan.travel, travel);
  plan.area = area ?? null;
  await plan.trying(() => findAgain(plan, stops));
  plan.measure();
}

/** A new plan; one like a round that is copied when that is said. @param {string} project @param {string} like @param {() => void} changed */
export async function begin(project, like, changed) {
  const planning = await getJson(`/api/p/${project}/rounds/planning${like ? "?like=" + encodeURIComponent(like) : ""}`);
  const plan = new Plan(project, planning, changed);
  if (planning.forms.length === 1) plan.forms = [planning.forms[0].id];
  const { like: of } = planning;
  if (of) {
    const { name, note, pictures, allows, tellsPosition, forms, people, area, travel, stops } = of;
    const typed = { ...plan.typed, name, note, pictures, allows, tellsPosition };
    await goOn(plan, { forms, people, typed, area, travel: travelOf(travel), stops });
  }
  return plan;
}
