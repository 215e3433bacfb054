// The code list of a field: its codes, and the ways in which codes are added.
import { check, fileButton, moved, options, textBox } from "../../shell/controls.js";
import { say } from "../../shell/say.js";
import { symbol } from "../../shell/symbols.js";
import { html, nothing, repeat } from "../../shell/view.js";
import { CODED } from "./state.js";

/** So many groups of codes that look alike are named. */
const MOST_ALIKE = 6;

/** @param {any} state @param {any} f */
export function codeList(state, f) {
  const codes = f.codes ?? [];
  const none = CODED.includes(f.type) ? say("desk.codes.none") : say("desk.codes.anyNumber");
  const inStep = html`<p class="quiet">
    ${say("desk.codes.inStep")}
    ${state.readOnly ? nothing : html`<button type="button" class="plain" @click=${() => state.set(f, "codesFrom", "")}>${say("desk.codes.endThat")}</button>`}
  </p>`;
  return html`<div>
    ${codes.length === 0 ? html`<p class="quiet">${none}</p>` : table(state, f, codes)}
    ${f.codesFound && state.known(f) && state.layer ? alike(state, f) : nothing} ${f.codesFrom ? inStep : nothing}
    ${state.readOnly ? nothing : adding(state, f)} ${told(state, f)}
    ${state.readOnly || state.others.length === 0 ? nothing : fromLayer(state, f)}
  </div>`;
}

function table(state, f, codes) {
  const heads = [
    say("desk.codes.code"),
    say("desk.codes.label"),
    say("desk.codes.retired"),
    say("desk.codes.fitsWhen"),
    say("desk.codes.alone"),
    "",
  ];
  return html`<table>
    <thead>
      <tr>
        ${heads.map((t) => html`<th>${t}</th>`)}
      </tr>
    </thead>
    <tbody>
      ${repeat(
        codes,
        (c) => c,
        (c, k) => codeRow(state, f, codes, c, k),
      )}
    </tbody>
  </table>`;
}

function codeRow(state, f, codes, c, k) {
  const disabled = state.readOnly;
  const put = (key) => (v) => state.set(c, key, v);
  const text = (key) => (v) => {
    c[key] = v;
    state.touch();
  };
  const up = () => {
    moved(codes, k, -1);
    state.setCodes(f, codes);
  };
  const away = () =>
    state.setCodes(
      f,
      codes.filter((x) => x !== c),
    );
  const acts = html`<button
      type="button"
      class="plain"
      ?disabled=${k === 0}
      aria-label=${say("desk.moveUp", { what: c.label })}
      @click=${up}
    >
      ${symbol("up")}</button
    ><button type="button" class="plain" aria-label=${say("desk.takeAwayOf", { what: c.label })} @click=${away}>×</button>`;
  const label = c.label;
  return html`<tr>
    <td>${textBox(c.code, text("code"), { said: say("desk.codes.codeOf"), class: "code", size: 14, disabled })}</td>
    <td>${textBox(c.label, text("label"), { said: say("desk.codes.labelOf", { code: c.code }), size: 22, disabled })}</td>
    <td>${check("", c.retired, put("retired"), { said: say("desk.codes.retire", { label }), disabled })}</td>
    <td>
      ${textBox(c.fitsWhen, put("fitsWhen"), { said: say("desk.codes.whenFits", { label }), class: "code", size: 18, placeholder: say("desk.codes.always"), disabled })}
    </td>
    <td>${f.type === "codes" ? check("", c.alone, put("alone"), { said: say("desk.codes.excludes", { label }), disabled }) : nothing}</td>
    <td>${disabled ? nothing : acts}</td>
  </tr>`;
}

/** Codes of a list that was only made from what stood there, which look like one value. */
function alike(state, f) {
  const { groups, failure } = state.alikeOf(f);
  if (failure) return html`<p class="told mb-1">${failure}</p>`;
  if (!groups) return html`<p class="told mb-1">${say("desk.codes.compared")}</p>`;
  if (groups.length === 0) return html`<p class="told mb-1">${say("desk.codes.noneAlike")}</p>`;
  const some = groups.slice(0, MOST_ALIKE).map((g) => g.map((s) => `“${s}”`).join(" / "));
  const said = say("desk.codes.someAlike", { which: some.join("; "), more: groups.length - some.length });
  const tidy = `/p/${state.project}/layers/${state.layer}/values?field=${f.name}`;
  return html`<p class="told mb-1">${said} <a href=${tidy}>${say("desk.codes.tidy")}</a></p>`;
}

/** @type {[string, import("../../shell/say.js").MessageKey][]} */
const HOW = [
  ["SAME", "desk.codes.same"],
  ["NUMBERS", "desk.codes.numbers"],
  ["SHORT_WORDS", "desk.codes.shortWords"],
];

function adding(state, f) {
  const near = (e, what) => e.target.closest("[data-adding]").querySelector(what).value;
  const paste = async (e) => {
    const box = e.target.closest("[data-adding]").querySelector("textarea");
    await state.addCodes(f, box.value, near(e, "select"));
    box.value = "";
  };
  let how = "SAME";
  const csv = async (file) => state.addCodes(f, await file.text(), how);
  const inUse = html`<button type="button" @click=${(e) => state.codesInUse(f, near(e, "select"))}>${say("desk.codes.inUse")}</button>`;
  return html`<div class="flex flex-wrap gap-3 items-end mt-2" data-adding="">
    <textarea rows="3" cols="34" aria-label=${say("desk.codes.toAdd")} placeholder=${say("desk.codes.paste")}></textarea>
    <select aria-label=${say("desk.codes.are")} @change=${(e) => (how = e.target.value)}>
      ${options(
        HOW.map(([v, key]) => /** @type {[string, string]} */ ([v, say(key)])),
        how,
      )}
    </select>
    <button type="button" @click=${paste}>${say("desk.codes.addThese")}</button>
    ${fileButton(say("desk.codes.csv"), ".csv,.txt", csv)} ${state.known(f) && state.layer ? inUse : nothing}
  </div>`;
}

function told(state, f) {
  const all = state.told.get(f) ?? [];
  return all.length === 0
    ? nothing
    : html`<ul class="told mt-2" role="status">
        ${all.map((t) => html`<li>${t}</li>`)}
      </ul>`;
}

/** Codes out of two columns of another layer. */
function fromLayer(state, f) {
  const chosen = async (e) => {
    const layer = e.target.value;
    state.from.set(f, layer ? { layer, columns: (await state.schemaOf(layer)).fields } : undefined);
    state.draw();
  };
  const from = state.from.get(f);
  return html`<p class="mt-2">
    ${say("desk.codes.orFrom")}
    <select aria-label=${say("desk.codes.layer")} @change=${chosen}>
      ${options([["", say("desk.chooseLayer")], ...state.others.map((l) => [l.id, l.name])], from?.layer ?? "")}
    </select>
    ${from ? columns(state, f, from) : nothing}
  </p>`;
}

function columns(state, f, { layer, columns: all }) {
  const list = () =>
    options(
      all.map((x) => [x.name, x.label]),
      all[0]?.name,
    );
  const take = (e) => {
    const [code, label] = [...e.target.closest("span").querySelectorAll("select")].map((s) => s.value);
    state.codesFrom(f, { layer, code, label });
  };
  return html`<span
    >${say("desk.codes.codes")}
    <select aria-label=${say("desk.codes.columnOfCodes")}>
      ${list()}
    </select>
    ${say("desk.codes.labels")}
    <select aria-label=${say("desk.codes.columnOfLabels")}>
      ${list()}
    </select>
    <button type="button" @click=${take}>${say("desk.codes.takeThem")}</button></span
  >`;
}
