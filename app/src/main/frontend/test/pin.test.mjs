import assert from "node:assert/strict";
import test from "node:test";
import { isPin, lock, pinWait, unlock } from "../src/day/pin.js";

test("only the right PIN gives the token back, and the text says nothing of it", async () => {
  const locked = await lock("a-token", "471147", 1000);
  assert.equal(await unlock(locked, "471147"), "a-token");
  assert.equal(await unlock(locked, "471148"), undefined);
  assert.ok(!String.fromCharCode(...new Uint8Array(locked.text)).includes("a-token"));
  const again = await lock("a-token", "471147", 1000);
  assert.notDeepEqual(again.salt, locked.salt);
  assert.notDeepEqual(again.text, locked.text);
});

test("a PIN has four to twelve digits", () => {
  for (const pin of ["4711", "123456789012"]) assert.ok(isPin(pin));
  for (const pin of ["", "471", "1234567890123", "47a1", " 4711"]) assert.ok(!isPin(pin));
});

test("wrong PINs wait from the third on, at most an hour", () => {
  assert.deepEqual([1, 2, 3, 4, 5].map(pinWait), [0, 0, 30_000, 60_000, 120_000]);
  assert.equal(pinWait(100), 3_600_000);
});
