// One entry of a look: its symbols, its label, what sorts features into it, what a feature made from it begins with.
import { url } from "../../map/look.js";
import { fileButton, moved, options, pick, textBox } from "../../shell/controls.js";
import { number } from "../../shell/styles.js";
import { say } from "../../shell/say.js";
import { typed } from "../../shell/typed.js";
import { html, nothing } from "../../shell/view.js";
import { numeric } from "./state.js";
import { symbolRow, usualSymbol } from "./symbols.js";

/** @param {any} state @param {any} c the entry @param {number} i @param {any[]} icons */
export function entry(state, c, i, icons) {
  const { look, shown, may } = state;
  const other = state.isOther(i);
  const said = c.label || (look.by === "one" ? say("desk.look.all") : say("map.everythingElse"));
  const open = state.open === i;
  const plan = shown.plan.entries[i];
  const wrong = [...shown.problems, ...shown.drowning].filter((p) => p.entry === i);
  return html`<div class="look-entry" data-entry=${i} ?data-open=${open}>
    <div class="line">
      <button
        type="button"
        class="symbol-button"
        aria-expanded=${String(open)}
        aria-label=${say("desk.look.symbolsOf", { entry: said })}
        @click=${() => state.openEntry(i)}
      >
        <img alt="" src=${plan ? url(plan.symbol) : nothing} />
      </button>
      ${textBox(c.label, (v) => state.change(() => (state.entryAt(i).label = v)), {
        class: "flex-1 min-w-0",
        placeholder: said,
        said: say("desk.look.label"),
        disabled: !may,
      })}
      ${look.by === "class" && !other ? upTo(state, c, i, said) : nothing}
      <span class="entry-count quiet text-sm tabular-nums" title=${say("desk.features")}>${number(shown.counts[i] ?? 0)}</span>
    </div>
    ${look.by === "rule" && !other ? rule(state, c, i, said) : nothing}
    <div class="entry-problem px-2">${wrong.map((p) => html`<p class="text-bracken text-sm">${p.message}</p>`)}</div>
    ${open ? body(state, c, i, icons) : nothing}
  </div>`;
}

function upTo(state, c, i, said) {
  const put = (e) => state.change(() => (state.entryAt(i).upTo = e.target.value === "" ? undefined : Number(e.target.value)));
  return html`<label class="text-sm"
    >${say("desk.look.upTo")}
    <input
      type="number"
      step="any"
      class="w-[5.4rem]"
      .value=${typed(String(c.upTo ?? ""))}
      aria-label=${say("desk.look.upToOf", { entry: said })}
      ?disabled=${state.look.method !== "hand" || !state.may}
      @change=${put}
  /></label>`;
}

function rule(state, c, i, said) {
  const box = textBox(c.rule, (v) => state.change(() => (state.entryAt(i).rule = v)), {
    class: "rule",
    placeholder: state.ruleLike,
    code: true,
    said: say("desk.look.ruleOf", { entry: said }),
    disabled: !state.may,
  });
  return html`<div class="px-2 pb-1">${box}</div>`;
}

/** The symbols of an entry, from the lowest up, and what can be done with them. */
function body(state, c, i, icons) {
  const { kind, fields, look } = state;
  const set = (how) => state.change(() => how(state.entryAt(i)));
  const numbers = fields.filter(numeric).map((f) => [f.name, f.label]);
  const row = (s, k) =>
    symbolRow(
      s,
      { kind, numbers, icons, last: k === c.stack.length - 1 },
      {
        set: (how) => set((e) => how(e.stack[k])),
        away: () => set((e) => e.stack.splice(k, 1)),
        up: () => set((e) => moved(e.stack, k, 1)),
      },
    );
  return html`<div class="body">
    ${c.stack.map(row)}
    <div class="knobs">
      ${pick(say("desk.add"), say("desk.look.onTop"), kinds(kind), (draw) => set((e) => e.stack.push(usualSymbol(kind, draw))))}
      ${look.by === "one" ? nothing : sameForAll(state, i)}
      <button type="button" class="more-icons" @click=${() => moreIcons(state, i)}>${say("desk.look.moreIcons")}</button>
      ${fileButton(say("desk.look.ownIcon"), ".svg,image/svg+xml", (f) => state.ownIcon(f, i))} ${ruleActs(state, i)}
    </div>
    <p class="label mt-3">${say("desk.look.beginsWith")}</p>
    ${preset(c, fields, set)}
  </div>`;
}

/** @returns {[string, string][]} */
function kinds(kind) {
  /** @type {[string, string][]} */
  const all = [["mark", say("desk.look.anIcon")]];
  if (kind !== "point") all.push(["line", say("desk.look.aLine")]);
  if (kind === "polygon") all.push(["area", say("desk.look.aFill")]);
  return all;
}

function sameForAll(state, i) {
  return html`<button type="button" class="copy-stack" @click=${() => state.send("propose", { same: i })}>
    ${say("desk.look.sameForAll")}
  </button>`;
}

function ruleActs(state, i) {
  if (state.look.by !== "rule" || state.isOther(i)) return nothing;
  const away = () =>
    state.change((l) => {
      l.classes.splice(i, 1);
      state.open = -1;
    });
  const up = () =>
    state.change((l) => {
      moved(l.classes, i, -1);
      state.open = i - 1;
    });
  return html`<button type="button" @click=${away}>${say("desk.look.removeRule")}</button>
    ${i > 0 ? html`<button type="button" @click=${up}>${say("desk.up")}</button>` : nothing}`;
}

/** The values with which a feature made from the entry begins. */
function preset(c, fields, set) {
  const rest = fields.filter((f) => !(f.name in (c.preset ?? {}))).map((f) => [f.name, f.label]);
  const add = (name) => set((e) => ((e.preset ??= {})[name] = fields.find((f) => f.name === name).codes[0]?.code ?? ""));
  return html`<div class="knobs" data-preset="">
    ${Object.entries(c.preset ?? {}).map(([name, v]) =>
      presetOne(
        name,
        v,
        fields.find((x) => x.name === name),
        set,
      ),
    )}
    ${pick(say("desk.add"), say("desk.look.aValue"), rest, add)}
  </div>`;
}

function presetOne(name, v, f, set) {
  const label = f?.label ?? name;
  const put = (value) => set((e) => (e.preset[name] = value));
  const codes = () =>
    options(
      f.codes.map((k) => [k.code, k.label]),
      String(v),
    );
  const box = f?.codes.length
    ? html`<select @change=${(e) => put(e.target.value)}>
        ${codes()}
      </select>`
    : textBox(String(v), (text) => put(f && numeric(f) && text !== "" ? Number(text) : text), { class: "w-[7rem]" });
  const out = html`<button
    type="button"
    class="plain"
    aria-label=${say("desk.look.leaveOut", { field: label })}
    @click=${() => set((e) => delete e.preset[name])}
  >
    ×
  </button>`;
  return html`<label>${label}${box}${out}</label>`;
}

async function moreIcons(state, i) {
  try {
    const { openIconLibrary } = await import("./icon-library.js");
    await openIconLibrary(({ label, svg }) => state.ownIcon(new File([svg], label + ".svg"), i));
  } catch (e) {
    state.fail(e.message);
  }
}
