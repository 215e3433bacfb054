// How far, and which way, features of a pack lie from somebody.
import { loadEngine } from "../shell/engine.js";
import { metres } from "../shell/format.js";
import { say } from "../shell/say.js";
import { number } from "../shell/styles.js";
import { symbol } from "../shell/symbols.js";
import { html, nothing } from "../shell/view.js";

/** @typedef {{distanceM: number, bearingDeg: number}} Far */

/** Made ready once for what a pack holds. @type {WeakMap<any, {n: number, far: (fix: any) => Map<string, Far>}>} */
const seen = new WeakMap();

const isPoint = (f) => f.geometry?.type === "Point";

/** @param {any} engine @param {any} schema @param {any[]} features */
function listOf(engine, schema, features) {
  // no more of them is read than where they are
  const bare = features.map(({ id, geometry }) => ({ type: "Feature", id, geometry, properties: {} }));
  return engine.stops(JSON.stringify({ schema: { kind: schema.kind, fields: [] }, features: bare }));
}

function measure(engine, points, lists, fix, out) {
  const positions = Float64Array.from(points.flatMap((f) => f.geometry.coordinates.slice(0, 2)));
  const at = engine.far(positions, fix.lon, fix.lat);
  points.forEach((f, i) => out.set(f.id, { distanceM: at[2 * i], bearingDeg: at[2 * i + 1] }));
  for (const l of lists) for (const s of JSON.parse(l.from(fix.lon, fix.lat))) out.set(s.id, s);
}

/** How features of a pack lie from a fix; lines and areas as far as their nearest spot. What was made here is measured each time. @param {any} pack */
export async function farFrom(pack) {
  const engine = await loadEngine();
  const was = seen.get(pack);
  const known = was?.n === pack.features.length ? was.far : undefined;
  const ofPack =
    known ??
    (() => {
      const points = pack.features.filter(isPoint);
      const lists = pack.layers.map(({ layer, schema }) =>
        listOf(
          engine,
          schema,
          pack.features.filter((f) => f.layer === layer && f.geometry && !isPoint(f)),
        ),
      );
      return (fix) => {
        const out = new Map();
        measure(engine, points, lists, fix, out);
        return out;
      };
    })();
  seen.set(pack, { n: pack.features.length, far: ofPack });
  return (fix) => {
    const out = ofPack(fix);
    const made = [...pack.made.values()].filter((f) => f.geometry);
    const shapes = made.filter((f) => !isPoint(f)).map((f) => listOf(engine, { kind: kindOf(f.geometry) }, [f]));
    measure(engine, made.filter(isPoint), shapes, fix, out);
    return out;
  };
}

const kindOf = ({ type }) => (type.includes("Line") ? "line" : type.includes("Polygon") ? "polygon" : "point");

/** An arrow that points there, north up. @param {number} degrees */
export function arrow(degrees) {
  const turn = Math.round(degrees);
  return html`<span title=${say("day.fromNorth", { degrees: number(turn) })}>${symbol("here", turn)}</span>`;
}

/** How far something is, with its arrow. @param {Far | undefined} far */
export const farSaid = (far) => (far === undefined ? nothing : html`${metres(far.distanceM)}${arrow(far.bearingDeg)}`);
