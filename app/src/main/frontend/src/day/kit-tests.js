// What Kit can try: each says what came of it in words.
import { loadEngine } from "../shell/engine.js";
import { bytes } from "../shell/format.js";
import { say } from "../shell/say.js";
import { Failure, request } from "../shell/server.js";
import { fixed as fixedTo } from "../shell/styles.js";
import { currentFix, watchPosition } from "./fix.js";
import * as store from "./store.js";

/** So long a position is waited for, in milliseconds. */
const PATIENCE = 20_000;
/** So much is written and read back. */
const PROBE_BYTES = 1_000_000;

/** Waits for a position that is newer than the question; what was known before is no answer. @returns {Promise<string>} */
export function testReceiver() {
  if (!navigator.geolocation) return Promise.resolve(say("day.kit.noReceiver"));
  const began = Date.now();
  return new Promise((resolve) => {
    const over = (text) => {
      ended();
      clearTimeout(patience);
      resolve(text);
    };
    const fixed = (accuracy) => over(say("day.kit.fixed", { accuracy: Math.round(accuracy), s: seconds(Date.now() - began) }));
    const patience = setTimeout(() => over(say("day.kit.noFix")), PATIENCE);
    let first = true; // the listener hears at once of what is known already
    const ended = watchPosition((fix) => {
      if (!first) fixed(fix.accuracy);
    });
    first = false;
    navigator.geolocation.getCurrentPosition(
      (p) => fixed(p.coords.accuracy),
      (e) => e.code === e.PERMISSION_DENIED && over(say("day.kit.denied")),
      { enableHighAccuracy: true, maximumAge: 0, timeout: PATIENCE },
    );
  });
}

const seconds = (ms) => fixedTo(ms / 1000, 1);

/** Takes a picture as a visit does, and keeps nothing of it. @param {File} file */
export async function testCamera(file) {
  let bitmap;
  try {
    bitmap = await createImageBitmap(file);
  } catch {
    return say("day.noPicture"); // a file that this browser can't draw
  }
  const size = { w: bitmap.width, h: bitmap.height, size: bytes(file.size) };
  const fix = currentFix();
  if (!fix) return say("day.kit.pictureNoPlace", size);
  const engine = await loadEngine();
  const tag = { lon: fix.lon, lat: fix.lat, accuracy: fix.accuracy, at: new Date().toISOString(), offset: 0 };
  const tagged = engine.geotag(new Int8Array(await file.arrayBuffer()), JSON.stringify(tag));
  return say(tagged ? "day.kit.picture" : "day.kit.pictureNoTag", size);
}

/** Writes something, reads it back, and takes it away again. */
export async function testStore() {
  const began = performance.now();
  const probe = crypto.getRandomValues(new Uint8Array(65536));
  const whole = new Uint8Array(PROBE_BYTES).map((_, i) => probe[i % probe.length] ?? 0);
  try {
    await store.put("meta", whole, "probe");
    const back = await store.get("meta", "probe");
    const same = back.length === whole.length && back.every((b, i) => b === whole[i]);
    const ms = Math.round(performance.now() - began);
    return same ? say("day.kit.storeWell", { size: bytes(PROBE_BYTES), ms }) : say("day.kit.storeOther");
  } catch (e) {
    if (!(e instanceof store.StoreFull)) throw e;
    return e.message;
  } finally {
    await store.remove("meta", "probe");
  }
}

/** Asks the office something small. */
export async function testLink() {
  const began = performance.now();
  try {
    await request("/api/day/me", { patient: false });
    return say("day.kit.linkWell", { ms: Math.round(performance.now() - began) });
  } catch (e) {
    if (!(e instanceof Failure)) throw e;
    return e.status === 0 ? say("day.contact.noLink") : e.message;
  }
}
