// What travels with a form: reference pictures and documents, out of the parts of its pack.
import * as store from "./store.js";

/** Addresses of files that were opened, by the hash of their part; kept while the page lives. @type {Map<string, string | Promise<string>>} */
const opened = new Map();

/** Where the file of a part can be read: at once when it was opened before. @param {string} hash @returns {string | Promise<string>} "" when it is not here */
export function address(hash) {
  const known = opened.get(hash) ?? opening(hash);
  opened.set(hash, known);
  return known;
}

async function opening(hash) {
  const text = await store.get("parts", hash);
  if (text === undefined) {
    opened.delete(hash);
    return ""; // an older pack does not have it
  }
  const { type, content } = JSON.parse(text);
  const bytes = Uint8Array.from(atob(content), (c) => c.charCodeAt(0));
  const url = URL.createObjectURL(new Blob([bytes], { type }));
  opened.set(hash, url);
  return url;
}

/** The ids of all files that a form refers to. @returns {string[]} */
function idsOf(form) {
  const questions = form.sections.flatMap((s) => s.questions);
  const all = [
    ...questions.map((q) => q.picture),
    ...questions.flatMap((q) => (q.codes ?? []).map((c) => c.picture)),
    ...(form.guidance ?? []).map((g) => g.file),
  ];
  return [...new Set(all.filter(Boolean))];
}

/** Where each file of a form is on this device, by its id. @param {any} pack @param {any} form @returns {Promise<Map<string, string>>} */
export async function filesOf(pack, form) {
  const found = new Map();
  for (const id of idsOf(form)) {
    const hash = pack.parts["file-" + id];
    const url = hash ? await address(hash) : "";
    if (url) found.set(id, url);
  }
  return found;
}
