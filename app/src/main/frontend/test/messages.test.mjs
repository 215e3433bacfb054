// The messages of checks: each listed once, and changed wherever it is told.
import assert from "node:assert/strict";
import { test } from "node:test";
import { messagesOf, reworded } from "../src/desk/form/messages.js";

const check = (rule, message) => ({ rule, message, weight: "firm" });
const questions = [
  { name: "a", checks: [check("a > 0", "too small"), check("a < 9", "too large")] },
  { name: "b" },
  { name: "c", checks: [check("c > 0", "too small"), check("c < 5", "")] },
];

test("a message that several checks tell is listed once, an empty one never", () => {
  const all = messagesOf(questions);
  assert.deepEqual(
    all.map((m) => m.text),
    ["too small", "too large"],
  );
  assert.deepEqual(
    all[0].of.map(({ q, index }) => [q.name, index]),
    [
      ["a", 0],
      ["c", 0],
    ],
  );
});

test("another wording goes to each check that tells it, and to no other", () => {
  const edits = reworded(messagesOf(questions)[0].of, "at least one");
  assert.deepEqual(
    edits.map((e) => [e.question, e.property, e.value.map((c) => c.message)]),
    [
      ["a", "checks", ["at least one", "too large"]],
      ["c", "checks", ["at least one", ""]],
    ],
  );
});
