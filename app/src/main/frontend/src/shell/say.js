// What people read: texts from the catalogue in their language, numbers and days in their browser's style.
import { IntlMessageFormat } from "intl-messageformat";
import { day, kept, number, style, useStyle, when } from "./styles.js";

/** @typedef {import("../../build/messages").MessageKey} MessageKey */

/** @type {Record<string, string>} */
let texts = {};
let language = "en";
/** @type {Map<string, IntlMessageFormat>} */
const read = new Map();

/** Takes a catalogue; `style` stands for the browser's languages where there is no browser. @param {Record<string, string>} all @param {{language?: string, style?: string[]}} [more] */
export function useCatalogue(all, more = {}) {
  texts = all;
  language = more.language ?? "en";
  useStyle(more.style);
  read.clear();
}

/** Fetches the catalogue that the page names. */
export async function loadCatalogue() {
  const link = /** @type {HTMLLinkElement} */ (document.querySelector("link[data-messages]"));
  const answer = await fetch(link.href, { credentials: "same-origin" });
  if (!answer.ok) throw new Error(String(answer.status));
  useCatalogue(await answer.json(), { language: document.documentElement.lang });
}

// plurals follow the text's language, numbers and days the person's browser
const formatters = {
  getNumberFormat: (_, options) => kept("number", options, () => new Intl.NumberFormat(style(), options)),
  getDateTimeFormat: (_, options) => kept("day", options, () => new Intl.DateTimeFormat(style(), options)),
  getPluralRules: (_, options) => kept("plural", options, () => new Intl.PluralRules(known(language), options)),
};

/** A language that the browser knows, since a test's own is not among them. @param {string} tag */
function known(tag) {
  return Intl.PluralRules.supportedLocalesOf(tag).length > 0 ? tag : "en";
}

/** A number with all its digits and no groups, as in a box. */
const EXACT = { number: { exact: { maximumFractionDigits: 20, useGrouping: false } } };

/** The text of a key, its arguments put in. @param {MessageKey} key @param {Record<string, string | number | Date>} [args] @returns {string} */
export function say(key, args) {
  const text = texts[key];
  if (text === undefined) throw new Error(`the catalogue has no text for “${key}”`);
  if (!text.includes("{") && !text.includes("'")) return text;
  let made = read.get(key);
  if (!made) read.set(key, (made = new IntlMessageFormat(text, known(language), EXACT, { formatters })));
  return String(made.format(/** @type {any} */ (args)));
}

/** Texts of values, whose arguments go in as the person's browser writes them. @type {Record<string, (args: any) => Record<string, string>>} */
const STYLED = {
  "style.fixed": ({ n, decimals }) => ({
    n: number(n, { minimumFractionDigits: decimals, maximumFractionDigits: decimals, useGrouping: false }),
  }),
  "style.day": (args) => ({ day: day(args.day) }),
  "style.moment": ({ at }) => ({ at: when(at) }),
};

/**
 * What core tells, in words: a text as it stands, or {say: key, with: arguments}, which may be such themselves.
 * @param {import("../../types/border").Said | undefined} told
 * @returns {string}
 */
export function words(told) {
  if (told === undefined || told === null) return "";
  if (typeof told === "string") return told;
  if (told.say === "") return String(told.with?.text ?? "");
  /** @type {Record<string, string | number | Date>} */
  const args = {};
  for (const [name, v] of Object.entries(told.with ?? {})) args[name] = typeof v === "number" ? v : words(v);
  const styled = STYLED[told.say];
  return say(/** @type {MessageKey} */ (told.say), styled ? styled(args) : args);
}

/** What core tells within plain text: as it stands, or its JSON form; somebody's own words may look so too. @param {string} text */
export function wordsInText(text) {
  if (!text.startsWith('{"say":')) return text;
  try {
    const told = JSON.parse(text);
    return told.say === "" || Object.hasOwn(texts, told.say) ? words(told) : text;
  } catch {
    return text; // somebody's own words that begin so
  }
}

/**
 * What core gives as JSON, with all that it tells in words.
 * @param {string} text
 */
export function inWords(text) {
  if (!text.includes('{"say":')) return JSON.parse(text);
  // a row of a list with a question named "say" is no text: its answer is no key
  return JSON.parse(text, (_, v) => (v !== null && typeof v === "object" && Object.hasOwn(texts, v.say) ? words(v) : v));
}

/** The word for one of a closed list that core names by ids: a type of fields, a way of sorting. @param {"fieldType" | "lookBy" | "breaks"} list @param {string} id */
export const sayOf = (list, id) => say(/** @type {MessageKey} */ (`${list}.${id}`));
