// A PIN that opens a person's token: a key is made of it slowly (PBKDF2 with SHA-256), and the token is encrypted under that key (AES-GCM), so that
// only the right PIN gives it back. The number of rounds is that of the OWASP Password Storage Cheat Sheet of 2023 (from memory).

/** The least and the most digits of one. */
export const LEAST = 4;
export const MOST = 12;
const ROUNDS = 600_000;
const SALT_BYTES = 16;
const IV_BYTES = 12;

/** @typedef {{salt: Uint8Array, iv: Uint8Array, rounds: number, text: ArrayBuffer}} Locked */

/** How long to wait after the nth wrong PIN in a row, ms. @param {number} wrong */
export const pinWait = (wrong) => (wrong < 3 ? 0 : Math.min(30_000 * 2 ** (wrong - 3), 3_600_000));

/** @param {string} pin */
export const isPin = (pin) => new RegExp(`^\\d{${LEAST},${MOST}}$`).test(pin);

/** @param {string} pin @param {Uint8Array} salt @param {number} rounds */
async function keyOf(pin, salt, rounds) {
  const bytes = new TextEncoder().encode(pin);
  const raw = await crypto.subtle.importKey("raw", bytes, "PBKDF2", false, ["deriveKey"]);
  const how = { name: "PBKDF2", hash: "SHA-256", salt: /** @type {BufferSource} */ (salt), iterations: rounds };
  return crypto.subtle.deriveKey(how, raw, { name: "AES-GCM", length: 256 }, false, ["encrypt", "decrypt"]);
}

/** @param {string} token @param {string} pin @param {number} [rounds] @returns {Promise<Locked>} */
export async function lock(token, pin, rounds = ROUNDS) {
  const salt = crypto.getRandomValues(new Uint8Array(SALT_BYTES));
  const iv = crypto.getRandomValues(new Uint8Array(IV_BYTES));
  const text = await crypto.subtle.encrypt({ name: "AES-GCM", iv }, await keyOf(pin, salt, rounds), new TextEncoder().encode(token));
  return { salt, iv, rounds, text };
}

/** The token; undefined for another PIN. @param {Locked} locked @param {string} pin @returns {Promise<string | undefined>} */
export async function unlock(locked, pin) {
  const key = await keyOf(pin, locked.salt, locked.rounds);
  try {
    const iv = /** @type {BufferSource} */ (locked.iv);
    return new TextDecoder().decode(await crypto.subtle.decrypt({ name: "AES-GCM", iv }, key, locked.text));
  } catch (e) {
    if (/** @type {Error} */ (e).name === "OperationError") return undefined; // another key: it does not open
    throw e;
  }
}
