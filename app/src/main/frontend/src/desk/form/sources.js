// With what an answer begins: its sources in order, what each would give for the feature of the proof, and whether it follows them.
import { choose, options } from "../../shell/controls.js";
import { say, words } from "../../shell/say.js";
import { html, nothing } from "../../shell/view.js";
import { lookUp } from "./look-up.js";

/** @type {[string, import("../../shell/say.js").MessageKey][]} */
const KINDS = [
  ["asset", "desk.form.fromAsset"],
  ["last visit", "desk.form.fromLastVisit"],
  ["place", "desk.form.fromPlace"],
  ["device", "desk.form.fromDevice"],
  ["fixed", "desk.form.fromFixed"],
  ["worked out", "desk.form.fromFormula"],
];
/** @type {[string, import("../../shell/say.js").MessageKey][]} */
const ITEMS = [
  ["person", "desk.source.person"],
  ["device", "desk.source.device"],
  ["date", "desk.source.date"],
  ["time", "desk.source.time"],
  ["moment", "desk.source.moment"],
  ["position", "desk.source.position"],
  ["accuracy", "desk.source.accuracy"],
  ["height", "desk.source.height"],
  ["bearing", "desk.source.bearing"],
  ["easting", "desk.source.easting"],
  ["northing", "desk.source.northing"],
];
/** @type {[string, import("../../shell/say.js").MessageKey][]} */
const REFRESH = [
  ["once", "desk.source.once"],
  ["follow", "desk.source.follow"],
  ["always", "desk.source.always"],
];
const said = (all) => all.map(([id, key]) => [id, say(key)]);

/** What a source of a kind begins with. */
function fresh(state, kind) {
  if (kind === "place") {
    const l = state.lookups[0];
    return l ? { from: "place", ...l.lookUp, field: l.schema.fields[0]?.name ?? "" } : null;
  }
  if (kind === "last visit") return { from: kind, mostDays: 0 };
  if (kind === "device") return { from: kind, item: "date" };
  if (kind === "fixed") return { from: kind, value: "" };
  return kind === "worked out" ? { from: kind, formula: "" } : { from: kind };
}

function fixed(q, s, put) {
  const set = (value) => put({ ...s, value });
  const name = say("desk.source.value");
  if (q.codes?.length)
    return html`<select aria-label=${name} @change=${(e) => set(e.target.value)}>
      ${options([["", say("desk.rule.choose")], ...q.codes.map((c) => [c.code, c.label || c.code])], String(s.value ?? ""))}
    </select>`;
  const kind = { whole: "number", decimal: "number", counter: "number", duration: "number", date: "date" }[q.type] ?? "text";
  const read = (e) => set(kind === "number" && e.target.value !== "" ? Number(e.target.value) : e.target.value);
  return html`<input type=${kind} step="any" aria-label=${name} .value=${String(s.value ?? "")} @change=${read} />`;
}

/** What can be said of one source. */
function inside(state, q, s, k, put) {
  if (s.from === "last visit") {
    const days = (e) => put({ ...s, mostDays: Math.max(0, Math.round(Number(e.target.value) || 0)) });
    return html`<label
      >${say("desk.source.mostDays")}
      <input type="number" min="0" size="5" .value=${String(s.mostDays || "")} @change=${days} /> ${say("desk.source.days")}</label
    >`;
  }
  if (s.from === "device")
    return html`<select aria-label=${say("desk.source.item")} @change=${(e) => put({ ...s, item: e.target.value })}>
      ${options(/** @type {any} */ (said(ITEMS)), s.item)}
    </select>`;
  if (s.from === "fixed") return fixed(q, s, put);
  if (s.from === "worked out")
    return state.ruleBox(`source ${k}`, s.formula ?? "", {
      id: `e-source-${k}`,
      said: say("desk.form.fromFormula"),
      list: state.listOf(q.name),
      type: "",
      put: (formula) => put({ ...s, formula }),
    });
  return s.from === "place" ? lookUp(state, s, put) : nothing;
}

/** @param {any} state @param {any} q */
export function sources(state, q) {
  const chain = q.prefill ?? [];
  const given = state.live.sources(q.name);
  const change = (how) => state.change("prefill", how);
  const one = (s, k) => {
    const g = given[k];
    const value = g && (g.empty ? (g.note ? words(g.note) : say("desk.source.nothing")) : words(g.shown));
    const move = (by) =>
      change((now) => {
        const next = [...now];
        next.splice(k + by, 0, ...next.splice(k, 1));
        return next;
      });
    return html`<li data-source=${s.from}>
      <div class="rule-part">
        <b>${say(KINDS.find((x) => x[0] === s.from)?.[1] ?? "desk.form.fromFixed")}</b>
        ${inside(state, q, s, k, (next) => change((now) => now.map((x, j) => (j === k ? next : x))))}
      </div>
      <p class="rule-part">
        <span class=${g?.wins ? "source-wins" : "quiet"} data-gives>${value ? say("desk.source.gives", { value }) : nothing}</span>
        ${k > 0 ? html`<button type="button" class="plain" @click=${() => move(-1)}>${say("desk.source.sooner")}</button>` : nothing}
        ${k < chain.length - 1 ? html`<button type="button" class="plain" @click=${() => move(1)}>${say("desk.source.later")}</button>` : nothing}
        <button type="button" class="plain" @click=${() => change((now) => now.filter((_, j) => j !== k))}>${say("do.remove")}</button>
      </p>
    </li>`;
  };
  const add = (e) => {
    const next = fresh(state, e.target.value);
    e.target.value = "";
    if (next) change((now) => [...now, next]);
  };
  const kinds = KINDS.filter(([id]) => (id !== "asset" || q.writesTo) && (id !== "place" || state.lookups.length));
  return html`<div id="e-sources">
    <p class="label">${say("desk.source.beginsWith")}</p>
    <ol class="sources">
      ${chain.map(one)}
    </ol>
    <select id="add-source" aria-label=${say("desk.source.add")} @change=${add}>
      ${options([["", say(chain.length ? "desk.source.addNext" : "desk.source.add")], .../** @type {any} */ (said(kinds))], "")}
    </select>
    ${
      chain.length
        ? choose(say("desk.source.refresh"), q.refresh ?? "once", /** @type {any} */ (said(REFRESH)), (v) => state.set("refresh", v), {
            id: "e-refresh",
          })
        : nothing
    }
  </div>`;
}
