// A condition in parts: what is asked, how it is compared, with what; joined by all or by any.
import { options } from "../../shell/controls.js";
import { say, words } from "../../shell/say.js";
import { html, nothing } from "../../shell/view.js";
import { isWhole, known, operand, typeOf } from "./operand.js";

/** Comparisons of dates have words of their own. @type {Record<string, import("../../shell/say.js").MessageKey>} */
const OF_TIME = {
  under: "desk.rule.isBefore",
  over: "desk.rule.isAfter",
  at_most: "desk.rule.atLatest",
  at_least: "desk.rule.atEarliest",
};
const TIMES = ["date", "date_time"];

const takes = (choices, id) => choices?.comparisons.find((c) => c.id === id)?.takes ?? 0;

/** Whether parts, or an operand, miss nothing. @param {any} what */
export function whole(what) {
  if (!what.parts) return isWhole(what);
  return what.parts.every((p) => p.comparison && isWhole(p.left) && p.values.every(isWhole) && !p.missing);
}

/** What stands beside a value: the type, codes and unit of what it is compared with. */
function besideOf(choices, left) {
  const name = left.kind === "name" || left.kind === "shifted" ? known(choices, left.names[0]) : null;
  const first = known(choices, left.names?.[0]);
  return { type: typeOf(choices, left), codes: name?.codes ?? [], unit: name?.unit ?? first?.unit ?? "" };
}

/** The comparisons that fit what is asked. */
function fitting(choices, left) {
  const { type, codes } = besideOf(choices, left);
  return choices.comparisons.filter((c) => type && c[codes.length ? "coded" : "plain"].includes(type));
}

/** A part with as many values as its comparison takes. */
function filled(choices, part) {
  const n = takes(choices, part.comparison);
  const given = n < 0 ? part.values.filter(isWhole) : Array.from({ length: n }, (_, i) => part.values[i] ?? null);
  return { ...part, values: given, missing: (n < 0 && given.length === 0) || given.some((v) => v === null) };
}

function withLeft(choices, part, left) {
  const fit = fitting(choices, left);
  const was = typeOf(choices, part.left);
  const same = was === typeOf(choices, left) && besideOf(choices, left).codes.length === 0;
  const comparison = fit.some((c) => c.id === part.comparison) ? part.comparison : (fit[0]?.id ?? "");
  return filled(choices, { left, comparison, values: same ? part.values : [] });
}

/** The codes that are chosen of many. */
function several(beside, part, put) {
  const has = new Set(part.values.map((v) => String(v.value)));
  const of = (c) => ({ kind: "value", value: beside.type === "number" ? Number(c.code) : c.code });
  const turn = (c) => (e) => {
    const next = beside.codes.filter((x) => (x === c ? e.target.checked : has.has(x.code)));
    put(next.map(of));
  };
  return html`<span class="rule-codes" role="group" aria-label=${say("desk.rule.codes")}>
    ${beside.codes.map(
      (c) => html`<label><input type="checkbox" .checked=${has.has(c.code)} @change=${turn(c)} />${c.label || c.code}</label>`,
    )}
  </span>`;
}

/** Values that are no codes, in one line. */
function listed(beside, part, put) {
  const set = (e) => {
    const all = e.target.value.split(",").map((t) => t.trim());
    const made = all.filter(Boolean).map((t) => (beside.type === "number" ? Number(t) : t));
    put(made.filter((v) => !Number.isNaN(v)).map((value) => ({ kind: "value", value })));
  };
  const now = part.values.map((v) => v.value).join(", ");
  return html`<input aria-label=${say("desk.rule.values")} placeholder=${say("desk.rule.valuesLike")} .value=${now} @change=${set} />`;
}

function values(choices, part, put) {
  const n = takes(choices, part.comparison);
  const beside = besideOf(choices, part.left);
  const all = (v) => put(filled(choices, { ...part, values: v }));
  if (n < 0) return beside.codes.length ? several(beside, part, all) : listed(beside, part, all);
  const set = (i) => (v) => all(part.values.map((x, j) => (i === j ? v : x)));
  const one = (i) => {
    const now =
      part.values[i] ??
      (beside.codes.length ? null : { kind: "value", value: beside.type === "number" ? NaN : beside.type === "date" ? { date: "" } : "" });
    return operand(choices, now, { beside }, set(i));
  };
  return Array.from({ length: n }, (_, i) => html`${i ? html` <span>${say("desk.rule.and")}</span> ` : nothing}${one(i)}`);
}

/** @param {import("./rule-box.js").RuleBox} box @param {any} now @param {string} id */
export function partsView(box, now, id) {
  const { choices } = box;
  const { join, parts } = now ?? { join: "all", parts: [] };
  const put = (next) => box.putParts(next.length ? { join, parts: next } : null);
  const at = (i) => (p) => put(parts.map((x, j) => (i === j ? p : x)));
  const row = (p, i) => {
    const fit = fitting(choices, p.left);
    const time = TIMES.includes(typeOf(choices, p.left));
    const said = (c) => (time && OF_TIME[c.id] ? say(OF_TIME[c.id]) : words(c.said));
    const compare = (e) => at(i)(filled(choices, { ...p, comparison: e.target.value, values: p.values }));
    return html`<li class="rule-part" data-part=${i}>
      ${operand(choices, p.left, { left: true }, (left) => at(i)(withLeft(choices, p, left)))}
      ${
        fit.length
          ? html`<select aria-label=${say("desk.rule.how")} @change=${compare}>
              ${options(
                fit.map((c) => [c.id, said(c)]),
                p.comparison,
              )}
            </select>`
          : nothing
      }
      ${p.comparison ? values(choices, p, at(i)) : nothing}
      ${
        parts.length > 1
          ? html`<button
              type="button"
              class="plain"
              aria-label=${say("desk.rule.removePart", { n: i + 1 })}
              @click=${() => put(parts.filter((x) => x !== p))}
            >
              ×
            </button>`
          : nothing
      }
    </li>`;
  };
  const more = () => box.putParts({ join, parts: [...parts, { left: { kind: "name", names: [""] }, comparison: "", values: [] }] });
  const joined = (e) => box.putParts({ join: e.target.value, parts });
  return html`<div id=${id}>
    ${
      parts.length > 1
        ? html`<select aria-label=${say("desk.rule.join")} @change=${joined}>
            ${options(
              [
                ["all", say("desk.rule.all")],
                ["any", say("desk.rule.any")],
              ],
              join,
            )}
          </select>`
        : nothing
    }
    <ol class="rule-parts">
      ${parts.map(row)}
    </ol>
    <button type="button" class="plain" data-add-part ?disabled=${!whole({ parts })} @click=${more}>
      ${join === "any" ? say("desk.rule.orElse") : say("desk.rule.andAlso")}
    </button>
  </div>`;
}
