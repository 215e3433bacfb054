// A value of a rule made with pickers: an answer, a code, a number, a sum of answers, the day of the visit.
import { say, words } from "../../shell/say.js";
import { html, nothing } from "../../shell/view.js";

/** The groups of names, in their order. @type {[string, import("../../shell/say.js").MessageKey][]} */
const GROUPS = [
  ["question", "desk.rule.questions"],
  ["list", "desk.rule.lists"],
  ["rule", "desk.rule.sharedRules"],
  ["before", "desk.rule.before"],
  ["last", "desk.rule.last"],
  ["visit", "desk.rule.visit"],
];
/** Kinds that stand for one thing and no working out. */
const PLAIN = ["value", "name"];

/** What is known of a name; undefined for one that is gone. */
export const known = (choices, name) => choices.names.find((n) => n.name === name);

/** The type of what an operand gives; "" as long as it is not known. */
export function typeOf(choices, o) {
  if (!o) return "";
  if (o.kind === "name") return known(choices, o.names?.[0])?.type ?? "";
  if (o.kind === "value")
    return typeof o.value === "number"
      ? "number"
      : o.value?.date !== undefined
        ? "date"
        : o.value?.timestamp !== undefined
          ? "date_time"
          : "text";
  return choices.operands.find((k) => k.id === o.kind)?.gives ?? "";
}

const DATES = ["date", "date_time"];
const alike = (a, b) => !a || !b || a === b || (DATES.includes(a) && DATES.includes(b));

/** Whether nothing is missing in an operand. */
export function isWhole(o) {
  if (!o) return false;
  if (o.kind === "value") {
    const v = o.value?.date ?? o.value?.timestamp ?? o.value;
    return v !== "" && v !== null && v !== undefined && !Number.isNaN(v);
  }
  const dates = o.kind === "days" || o.kind === "years";
  return (o.names ?? []).every((n) => dates || n !== "");
}

function grouped(choices, fits, chosen) {
  return GROUPS.map(([group, key]) => {
    const some = choices.names.filter((n) => n.group === group && fits(n));
    return some.length === 0
      ? nothing
      : html`<optgroup label=${say(key)}>
          ${some.map((n) => html`<option value=${"name:" + n.name} .selected=${"name:" + n.name === chosen}>${words(n.label)}</option>`)}
        </optgroup>`;
  });
}

/** A name of a type. */
function names(choices, type, chosen, put, said, today = false) {
  const gone = chosen && !known(choices, chosen);
  return html`<select aria-label=${said} @change=${(e) => put(e.target.value.slice("name:".length))}>
    ${chosen || today ? nothing : html`<option value="name:" .selected=${true}>${say("desk.rule.choose")}</option>`}
    ${today ? html`<option value="name:" .selected=${!chosen}>${say("desk.rule.today")}</option>` : nothing}
    ${gone ? html`<option value=${"name:" + chosen} .selected=${true}>${chosen}</option>` : nothing}
    ${grouped(choices, (n) => alike(n.type, type), "name:" + chosen)}
  </select>`;
}

/** What a new operand of a kind begins with. */
function fresh(choices, kind, from) {
  const k = choices.operands.find((x) => x.id === kind);
  const first = from?.kind === "name" && alike(known(choices, from.names[0])?.type, k.takes) ? from.names[0] : "";
  const count = kind === "sum" ? 2 : k.names;
  /** @type {any} */
  const o = { kind };
  if (count) o.names = Array.from({ length: count }, (_, i) => (i === 0 ? first : ""));
  if (kind === "shifted") o.by = 1;
  return o;
}

function number(value, put, said) {
  return html`<input
    type="number"
    step="any"
    size="6"
    aria-label=${said}
    .value=${String(value ?? "")}
    @change=${(e) => put(e.target.value === "" ? NaN : Number(e.target.value))}
  />`;
}

/** The boxes of a kind behind its name. */
function inside(choices, o, put) {
  const k = choices.operands.find((x) => x.id === o.kind);
  const set = (i) => (name) => put({ ...o, names: o.names.map((n, j) => (i === j ? name : n)) });
  const one = (i) => names(choices, k.takes, o.names[i], set(i), say("desk.rule.nth", { n: i + 1 }), k.takes === "date");
  if (o.kind === "sum") {
    const all = o.names.map((_, i) => html`${i ? html` <span>+</span> ` : nothing}${one(i)}`);
    const more = () => put({ ...o, names: [...o.names, ""] });
    const less = () => put({ ...o, names: o.names.slice(0, -1) });
    return html`${all}
      <button type="button" class="plain" data-more @click=${more}>${say("desk.rule.oneMore")}</button>
      ${o.names.length > 2 ? html`<button type="button" class="plain" @click=${less}>${say("desk.rule.oneLess")}</button>` : nothing}`;
  }
  if (o.kind === "shifted") return html`${one(0)} ${number(o.by, (by) => put({ ...o, by: by || 0 }), say("desk.rule.moreOrLess"))}`;
  if (o.kind === "today")
    return html`${number(o.by ?? 0, (by) => put({ ...o, by: by || 0 }), say("desk.rule.daysLater"))} ${say("desk.rule.daysLater")}`;
  const signs = { difference: "−", product: "×", ratio: "÷", share: "÷" };
  return k.names === 2 ? html`${one(0)} <span>${signs[o.kind] ?? say("desk.rule.to")}</span> ${one(1)}` : k.names ? one(0) : nothing;
}

/** The box for a value that is written out. */
function written(type, o, put, unit) {
  const said = say("desk.rule.value");
  const text = (kind, value, made) =>
    html`<input
      type=${kind}
      aria-label=${said}
      .value=${value ?? ""}
      @change=${(e) => put({ kind: "value", value: made(e.target.value) })}
    />`;
  if (type === "number") return html`${number(o.value, (value) => put({ kind: "value", value }), said)} ${unit}`;
  if (type === "date") return text("date", o.value?.date, (date) => ({ date }));
  if (type === "date_time") return text("datetime-local", o.value?.timestamp?.slice(0, 16), (at) => ({ timestamp: at ? at + ":00Z" : "" }));
  return text("text", o.value, (value) => value);
}

const empty = { number: NaN, date: { date: "" }, date_time: { timestamp: "" } };

/**
 * @param {any} choices what can be picked
 * @param {any} o the operand as it is
 * @param {{formula?: boolean, left?: boolean, beside?: any}} what `beside`: what it is compared with, {type, codes, unit}
 * @param {(o: any) => void} put
 */
export function operand(choices, o, { formula, left, beside }, put) {
  const type = beside?.type ?? "";
  const codes = (beside?.codes ?? []).map((c) => ["code:" + c.code, c.label || c.code]);
  const isCode = o?.kind === "value" && codes.length > 0;
  const chosen = !o ? "" : o.kind === "name" ? "name:" + o.names[0] : isCode ? "code:" + o.value : "kind:" + o.kind;
  const fits = (n) => (beside ? alike(n.type, type) && n.type !== "list" && n.type !== "geometry" : formula ? n.type !== "list" : true);
  const kinds = choices.operands.filter((k) => {
    if (PLAIN.includes(k.id) || (left && k.names === 0)) return false;
    const there = k.names === 0 || choices.names.some((n) => alike(n.type, k.takes) && (k.takes || n.type));
    return there && (!beside || alike(k.gives, type)) && (!beside || Boolean(k.gives));
  });
  const take = (e) => {
    const [kind, ...rest] = e.target.value.split(":");
    const value = rest.join(":");
    if (kind === "name") put({ kind: "name", names: [value] });
    else if (kind === "code") put({ kind: "value", value: beside?.type === "number" ? Number(value) : value });
    else put(value === "value" ? { kind: "value", value: empty[type] ?? "" } : fresh(choices, value, o));
  };
  const gone = o?.kind === "name" && o.names[0] && !known(choices, o.names[0]);
  const value =
    beside && codes.length === 0
      ? html`<option value="kind:value" .selected=${chosen === "kind:value"}>${say("desk.rule.aValue")}</option>`
      : nothing;
  return html`<select aria-label=${left ? say("desk.rule.whatIsAsked") : say("desk.rule.with")} @change=${take}>
      ${chosen === "" || chosen === "name:" ? html`<option value="name:" .selected=${true}>${say("desk.rule.choose")}</option>` : nothing}
      ${value} ${gone ? html`<option value=${chosen} .selected=${true}>${o.names[0]}</option>` : nothing}
      ${
        codes.length
          ? html`<optgroup label=${say("desk.rule.codes")}>
              ${codes.map(([v, label]) => html`<option value=${v} .selected=${v === chosen}>${label}</option>`)}
            </optgroup>`
          : nothing
      }
      ${grouped(choices, fits, chosen)}
      <optgroup label=${say("desk.rule.workedOutOf")}>
        ${kinds.map((k) => html`<option value=${"kind:" + k.id} .selected=${"kind:" + k.id === chosen}>${words(k.said)}</option>`)}
      </optgroup>
    </select>
    ${o && !PLAIN.includes(o.kind) ? inside(choices, o, put) : nothing}
    ${o?.kind === "value" && !isCode ? written(type || "text", o, put, beside?.unit ?? "") : nothing}
    ${formula && o && !PLAIN.includes(o.kind) ? rounding(o, put) : nothing}`;
}

function rounding(o, put) {
  const set = (e) => put({ ...o, digits: e.target.value === "" ? -1 : Number(e.target.value) });
  return html`<label
    >${say("desk.rule.roundedTo")}
    <input type="number" min="0" max="12" size="3" .value=${o.digits >= 0 ? String(o.digits) : ""} @change=${set} />
    ${say("desk.rule.decimals")}</label
  >`;
}
