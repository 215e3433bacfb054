// The rounds of a person as the office told them last. They may have thousands of stops, so they are read again only when they are other.
import * as store from "./store.js";

/** @typedef {import("../../types/border").MyRound[]} Rounds */

/** What was read last, and what names that state of it. @type {{person: string | null, state?: string, rounds?: Rounds}} */
let read = { person: null };

/** @param {string} person @param {Rounds} rounds */
export async function keepRounds(person, rounds) {
  await store.put("meta", rounds, "rounds:" + person);
  // the name of the state comes after it: who reads between the two reads once more
  await store.put("meta", crypto.randomUUID(), "rounds-state:" + person);
}

/** What the office told last; undefined when it never told anything here. @param {string | null} person @returns {Promise<Rounds | undefined>} */
export async function keptRounds(person) {
  const state = await store.get("meta", "rounds-state:" + person);
  // an earlier day book kept no state
  if (state === undefined || read.person !== person || read.state !== state)
    read = { person, state, rounds: await store.get("meta", "rounds:" + person) };
  return read.rounds;
}

/** @param {string} person */
export async function dropRounds(person) {
  await store.remove("meta", "rounds-state:" + person);
  await store.remove("meta", "rounds:" + person);
}
