// The editor of a layer's fields: rows of fields, a code list under each.
import { check, moved, options, textBox } from "../../shell/controls.js";
import { say, sayOf } from "../../shell/say.js";
import { symbol } from "../../shell/symbols.js";
import { getJson } from "../../shell/server.js";
import { drawn, html, nothing, repeat } from "../../shell/view.js";
import { codeList } from "./codes.js";
import { CODED, FieldsState, NUMBERS, TEXTS } from "./state.js";

function fieldRow(state, f, i) {
  const named = f.label || say("desk.field.theNew");
  const disabled = state.readOnly;
  const put = (key) => (v) => state.set(f, key, v);
  const name = (v) => {
    f.name = v;
    state.touch();
  };
  const stored = () =>
    textBox(f.name, name, { said: say("desk.field.storageOf", { field: named }), class: "code", size: 12, maxlength: 63 });
  const tick = (key, said) => check("", f[key], put(key), { said, disabled });
  return html`<tr data-field=${f.name ?? ""}>
      <td>${textBox(f.label, (v) => state.label(f, v), { said: say("desk.field.label"), size: 14, maxlength: 80, disabled })}</td>
      <td>${state.known(f) ? html`<span class="code">${f.name}</span>` : stored()}</td>
      <td>
        <select
          aria-label=${say("desk.field.typeOf", { field: named })}
          ?disabled=${disabled}
          @change=${(e) => state.type(f, e.target.value)}
        >
          ${options(
            state.types.map((t) => [t.id, sayOf("fieldType", t.id)]),
            f.type,
          )}
        </select>
      </td>
      <td>${TEXTS.includes(f.type) ? lengthOf(f, named, put) : nothing}${NUMBERS.includes(f.type) ? unitOf(f, named, put) : nothing}</td>
      <td>
        ${check("", f.nullable !== false, (v) => state.mayBeEmpty(f, v), { said: say("desk.field.mayBeEmpty", { field: named }), disabled })}
      </td>
      <td>${tick("unique", say("desk.field.isUnique", { field: named }))}</td>
      <td>${tick("officeOnly", say("desk.field.staysInOffice", { field: named }))}</td>
      <td class="whitespace-nowrap">${start(state, f, named)}</td>
      <td class="whitespace-nowrap">
        <button type="button" class="plain" aria-expanded=${String(state.open.has(f))} @click=${() => state.turn(f)}>
          ${f.codes?.length ? say("desk.field.codes", { n: f.codes.length }) : say("desk.field.more")}
        </button>
      </td>
      <td class="whitespace-nowrap">${disabled ? nothing : acts(state, i, named)}</td>
    </tr>
    ${
      state.open.has(f)
        ? html`<tr>
            <td colspan="10" class="more">${more(state, f, named, put)}</td>
          </tr>`
        : nothing
    }`;
}

function lengthOf(f, named, put) {
  const box = textBox(f.length || "", (v) => put("length")(Number(v) || ""), {
    said: say("desk.field.lengthOf", { field: named }),
    size: 3,
    inputmode: "numeric",
    placeholder: say("desk.field.any"),
    title: say("desk.field.mostCharacters"),
  });
  return html`<label class="quiet whitespace-nowrap">${say("desk.field.upTo")} ${box} ${say("desk.field.char")}</label>`;
}

function unitOf(f, named, put) {
  const unit = textBox(f.unit, (v) => put("unit")(v.trim()), {
    said: say("desk.field.unitOf", { field: named }),
    size: 4,
    maxlength: 20,
    placeholder: say("desk.field.unit"),
  });
  const decimals = () =>
    textBox(String(f.decimals ?? ""), (v) => put("decimals")(v === "" ? "" : Number(v)), {
      said: say("desk.field.decimalsOf", { field: named }),
      size: 2,
      placeholder: say("desk.field.dec"),
    });
  return html`<span class="flex gap-1">${unit}${f.type === "decimal" ? decimals() : nothing}</span>`;
}

function start(state, f, named) {
  if (f.type === "unique_id") return html`<span class="quiet">${say("desk.field.madeWith")}</span>`;
  const text = f.start?.formula ?? f.start?.fixed ?? "";
  const formula = f.start?.formula !== undefined;
  const disabled = state.readOnly;
  return html`${textBox(text, (v) => state.start(f, v, formula), { said: say("desk.field.defaultOf", { field: named }), size: 7, disabled })}
    <select
      aria-label=${say("desk.field.kindOfDefault", { field: named })}
      ?disabled=${disabled}
      @change=${(e) => state.start(f, text, e.target.value === "formula")}
    >
      ${options(
        [
          ["fixed", say("desk.field.fixed")],
          ["formula", say("desk.field.formula")],
        ],
        formula ? "formula" : "fixed",
      )}
    </select>`;
}

function acts(state, i, named) {
  const up = () => {
    moved(state.fields, i, -1);
    state.touch();
  };
  const away = say("desk.takeAwayOf", { what: named });
  return html`<button type="button" class="plain" aria-label=${say("desk.moveUp", { what: named })} ?disabled=${i === 0} @click=${up}>
      ${symbol("up")}</button
    ><button type="button" class="plain" aria-label=${away} title=${away} @click=${() => state.remove(i)}>×</button>`;
}

function more(state, f, named, put) {
  const disabled = state.readOnly;
  const fills = () =>
    html`<label class="flex gap-2 items-center"
      >${check(say("desk.field.fillsItself"), f.readOnly, put("readOnly"), { said: say("desk.field.fillsOf", { field: named }), disabled })}</label
    >`;
  const hint = textBox(f.hint, put("hint"), { said: say("desk.field.hintOf", { field: named }), size: 60, maxlength: 300, disabled });
  return html`<div class="grid gap-3">
    ${f.type === "unique_id" ? nothing : fills()}<label>${say("desk.field.hint")} ${hint}</label>
    ${CODED.includes(f.type) || NUMBERS.includes(f.type) ? codeList(state, f) : nothing}
  </div>`;
}

function below(state) {
  const { fields, others, readOnly, tag } = state;
  const named = fields.filter((f) => f.name);
  const add = html`<button type="button" data-add-field="" @click=${() => state.add()}>${say("desk.field.add")}</button>`;
  const setTag = (e) => {
    state.tag = e.target.value;
    state.touch();
  };
  const copy = () =>
    html`<label class="label"
      >${say("desk.field.copyFrom")}
      <select @change=${(e) => state.copyFrom(e.target.value)}>
        ${options([["", say("desk.chooseLayer")], ...others.map((l) => [l.id, l.name])], "")}
      </select></label
    >`;
  return html`<div class="flex flex-wrap gap-4 items-end my-3">
    ${readOnly ? nothing : add} ${readOnly || others.length === 0 ? nothing : copy()}
    <label class="label"
      >${say("desk.field.tagField")}
      <select ?disabled=${readOnly} @change=${setTag}>
        ${options([["", say("desk.none")], ...named.map((f) => [f.name, f.label])], tag)}
      </select></label
    >
    ${named.length === 0 ? nothing : captions(state, named)}
  </div>`;
}

function captions(state, named) {
  const one = (f) => {
    const said = say("desk.field.captionWith", { field: f.label });
    const on = state.captions.includes(f.name);
    return html`<label>${check(" " + f.label, on, (v) => state.caption(f, v), { said, disabled: state.readOnly })}</label>`;
  };
  return html`<fieldset>
    <legend class="label">${say("desk.field.captionFields")}</legend>
    <span class="flex flex-wrap gap-3">${named.map(one)}</span>
  </fieldset>`;
}

function view(state) {
  const heads = [
    say("desk.field.headLabel"),
    say("desk.field.headStored"),
    say("desk.field.headType"),
    "",
    say("desk.field.headEmpty"),
    say("desk.field.headUnique"),
    say("desk.field.headOffice"),
    say("desk.field.headDefault"),
    "",
    "",
  ];
  return html`<div class="overflow-x-auto">
      <table class="bg-white w-full fields">
        <thead>
          <tr>
            ${heads.map((t) => html`<th>${t}</th>`)}
          </tr>
        </thead>
        <tbody>
          ${repeat(
            state.fields,
            (f) => f,
            (f, i) => fieldRow(state, f, i),
          )}
        </tbody>
      </table>
    </div>
    ${state.fields.length === 0 ? html`<p class="quiet my-2">${say("desk.field.noneYet")}</p>` : nothing} ${below(state)}`;
}

/**
 * An editor in an element. `schema` is the layer's; `fixed` are the storage names of fields that are there. Gives {schema()} and calls `changed` after each
 * change.
 * @param {HTMLElement} box
 * @param {{project: string, layer?: string, schema: any, others: any[], fixed?: string[], readOnly?: boolean, changed?: () => void}} how
 */
export async function fieldsEditor(box, { project, layer, schema, others, fixed = [], readOnly = false, changed = () => {} }) {
  const types = await getJson(`/api/p/${project}/field-types`);
  /** @type {any} */
  const state = new FieldsState({ project, layer, schema, fixed, types, others, readOnly, changed, drawn: () => draw() });
  let count = state.fields.length;
  const all = drawn(box, () => view(state));
  const draw = () => {
    all();
    // a field that was just added is named next
    if (state.fields.length > count)
      /** @type {HTMLElement} */ ([...box.querySelectorAll("tbody tr[data-field] input")].at(-1))
        ?.closest("tr")
        ?.querySelector("input")
        ?.focus();
    count = state.fields.length;
  };
  draw();
  return { schema: () => state.schema() };
}
