// What is told of a pack that was fetched again.
import assert from "node:assert/strict";
import { test } from "node:test";
import { whatChanged } from "../src/day/changes.js";

const pack = (more = {}) => ({
  plan: {
    round: { note: "", due: "" },
    forms: [{ id: "f", title: "Visit", edition: 1 }],
    stops: [
      { feature: "a", note: "" },
      { feature: "b", note: "" },
    ],
    ...more.plan,
  },
  layers: more.layers ?? [{ layer: "l", name: "Structures" }],
  features: more.features ?? [
    { id: "a", version: 1 },
    { id: "b", version: 1 },
  ],
  last: more.last ?? { f: { a: { day: "2026-01-01", person: "x" } } },
});
const keys = (lines) => lines.map((l) => l.say.replace("day.news.", "") + (l.with.n ?? ""));

test("nothing is told of what is as it was", () => assert.deepEqual(whatChanged(pack(), pack()), []));

test("stops, features, visits, forms and words are told by what became of them", () => {
  const after = pack({
    plan: {
      round: { note: "two keys", due: "2026-05-04" },
      forms: [
        { id: "f", title: "Visit", edition: 2 },
        { id: "g", title: "Log", edition: 1 },
      ],
      stops: [
        { feature: "b", note: "ring first" },
        { feature: "c", note: "" },
      ],
    },
    layers: [
      { layer: "l", name: "Structures" },
      { layer: "m", name: "Log" },
    ],
    features: [
      { id: "b", version: 2 },
      { id: "c", version: 1 },
      { id: "d", version: 1 },
    ],
    last: { f: { a: { day: "2026-01-02", person: "x" }, b: { day: "2026-01-02", person: "y" } } },
  });
  const told = keys(whatChanged(pack(), after));
  assert.deepEqual(told, [
    "edition",
    "form",
    "layer",
    "stops1",
    "stopsGone1",
    "stopNotes1",
    "changed1",
    "assets2",
    "assetsGone1",
    "visits2",
    "note",
    "due",
  ]);
});

test("what was asked of the office meanwhile is no part of a pack", () => {
  const was = pack();
  was.features.push({ id: "z", version: 4, found: true });
  assert.deepEqual(whatChanged(was, pack()), []);
});
