// The editor of a layer's fields: rows of fields, a code list under each, what a change would do.
import { post, request } from "./api.js";
import { afterPress, h } from "./dom.js";
import { symbol } from "./symbols.js";

const json = async (path) => (await request(path)).json();
const TEXTS = ["text"];
const NUMBERS = ["whole", "decimal"];
const CODED = ["code", "codes"];

function input(value, label, onchange, more = {}) {
  return h("input", { value: value ?? "", "aria-label": label, onchange: (e) => onchange(e.target.value), ...more });
}

function tick(on, label, onchange, disabled) {
  return h("input", { type: "checkbox", checked: !!on, disabled, "aria-label": label, onchange: (e) => onchange(e.target.checked) });
}

/**
 * An editor in an element. `schema` is the layer's; fields that are there keep their storage names.
 * Returns {schema()} and calls `changed` after each change.
 */
export async function fieldsEditor(box, { project, schema, fixed = [], readOnly = false, changed = () => {} }) {
  const types = await json(`/api/p/${project}/field-types`);
  const others = JSON.parse(box.dataset.layers ?? "[]");
  const fields = structuredClone(schema.fields);
  let tag = schema.tagField ?? "";
  let captions = [...(schema.captionFields ?? [])];
  const open = new Set();
  /** What adding codes came to, by field. */
  const toldOf = new WeakMap();
  const known = (f) => fixed.includes(f.name);
  let stale = false;
  const touch = () => {
    changed();
    stale = true;
    afterPress(() => stale && draw());
  };

  function fieldRow(f, i) {
    const set = (key, v) => {
      if (v === "" || v === false || v === undefined || v === null) delete f[key];
      else f[key] = v;
      touch();
    };
    const named = f.label || "the new field";
    const start = f.start?.formula ?? f.start?.fixed ?? "";
    return [
      h("tr", { "data-field": f.name ?? "" },
        h("td", {}, input(f.label, "label", async (v) => {
          f.label = v;
          if (!known(f) && v) f.name = (await json(`/api/p/${project}/field-name?label=${encodeURIComponent(v)}`)).name;
          touch();
        }, { size: 14, maxlength: 80, disabled: readOnly })),
        h("td", {}, known(f) ? h("span", { class: "code" }, f.name) : input(f.name, "storage name of " + named, (v) => { f.name = v; touch(); }, { class: "code", size: 12, maxlength: 63 })),
        h("td", {}, h("select", { "aria-label": "type of " + named, disabled: readOnly, onchange: (e) => { f.type = e.target.value; if (CODED.includes(f.type)) open.add(f); touch(); } }, types.map((t) => h("option", { value: t.id, selected: t.id === f.type }, t.said)))),
        h("td", {}, TEXTS.includes(f.type) ? h("label", { class: "quiet whitespace-nowrap" }, "up to ", input(f.length || "", "length of " + named, (v) => set("length", Number(v) || ""), { size: 3, inputmode: "numeric", placeholder: "any", title: "most characters" }), " char.") : null,
          NUMBERS.includes(f.type) ? h("span", { class: "flex gap-1" }, input(f.unit, "unit of " + named, (v) => set("unit", v.trim()), { size: 4, maxlength: 20, placeholder: "unit" }), f.type === "decimal" ? input(f.decimals ?? "", "decimals of " + named, (v) => set("decimals", v === "" ? "" : Number(v)), { size: 2, placeholder: "dec." }) : null) : null),
        h("td", {}, tick(f.nullable !== false, named + " may be empty", (v) => { if (v) delete f.nullable; else f.nullable = false; touch(); }, readOnly)),
        h("td", {}, tick(f.unique, named + " is unique", (v) => set("unique", v), readOnly)),
        h("td", {}, tick(f.officeOnly, named + " stays in the office", (v) => set("officeOnly", v), readOnly)),
        h("td", { class: "whitespace-nowrap" }, f.type === "unique_id" ? h("span", { class: "quiet" }, "made with the feature") : [input(start, "default of " + named, (v) => set("start", v === "" ? "" : f.start?.formula !== undefined ? { formula: v } : { fixed: v }), { size: 7, disabled: readOnly }),
          h("select", { "aria-label": "kind of default of " + named, disabled: readOnly, onchange: (e) => set("start", e.target.value === "formula" ? { formula: start } : { fixed: start }) }, h("option", { value: "fixed" }, "fixed"), h("option", { value: "formula", selected: f.start?.formula !== undefined }, "formula"))]),
        h("td", { class: "whitespace-nowrap" }, h("button", { type: "button", class: "plain", "aria-expanded": String(open.has(f)), onclick: () => { open.has(f) ? open.delete(f) : open.add(f); draw(); } }, f.codes?.length ? `${f.codes.length} codes` : "More")),
        h("td", { class: "whitespace-nowrap" }, readOnly ? null : [
          h("button", { type: "button", class: "plain", "aria-label": "move " + named + " up", disabled: i === 0, onclick: () => { fields.splice(i - 1, 0, fields.splice(i, 1)[0]); touch(); } }, symbol("up")),
          h("button", { type: "button", class: "plain", "aria-label": "take away " + named, onclick: () => { fields.splice(i, 1); if (tag === f.name) tag = ""; captions = captions.filter((c) => c !== f.name); touch(); }, title: "take away " + named }, "×")])),
      open.has(f) ? h("tr", {}, h("td", { colspan: 10, class: "more" }, moreOf(f, named, set))) : null,
    ];
  }

  /** Codes of a list that was only made from what stood there, which look like one value. */
  function unlike(f) {
    const told = h("p", { class: "told mb-1" }, "Made from the values in use; they are being compared.");
    const tidy = h("a", { href: `/p/${project}/layers/${box.dataset.layer}/values?field=${f.name}` }, "Tidy them under Values");
    json(`/api/p/${project}/layers/${box.dataset.layer}/spellings?field=${f.name}`).then((groups) => {
      if (groups) told.replaceChildren(groups.length === 0 ? "Made from the values in use; no two of them look like one value." : `Made from the values in use, and some look like one value: ${groups.slice(0, 6).map((g) => g.map((s) => `“${s}”`).join(" / ")).join("; ")}${groups.length > 6 ? ` and ${groups.length - 6} more` : ""}. `, groups.length ? tidy : "");
    }, (e) => told.replaceChildren(e.message));
    return told;
  }

  function moreOf(f, named, set) {
    const codes = f.codes ?? [];
    const setCodes = (list) => { f.codes = list; if (list.length === 0) delete f.codes; touch(); };
    const how = h("select", { "aria-label": "codes are" }, [["SAME", "codes as they are"], ["NUMBERS", "codes 1, 2, 3…"], ["SHORT_WORDS", "codes as short words"]].map(([v, s]) => h("option", { value: v }, s)));
    const paste = h("textarea", { rows: 3, cols: 34, "aria-label": "codes to add", placeholder: "one in a line: a label, or code, label" });
    const add = async (text) => {
      const got = await post(`/api/p/${project}/codes`, { text, codes: how.value, there: codes });
      toldOf.set(f, [`${got.codes.length} ${got.codes.length === 1 ? "code" : "codes"} added.`, ...got.told]);
      setCodes([...codes, ...got.codes]);
    };
    const from = h("select", { "aria-label": "layer with codes" }, h("option", { value: "" }, "choose a layer"), others.map((l) => h("option", { value: l.id }, l.name)));
    const columns = h("span", {});
    from.addEventListener("change", async () => {
      if (!from.value) return columns.replaceChildren();
      const s = await json(`/api/p/${project}/layers/${from.value}/schema`);
      const pick = (label) => h("select", { "aria-label": label }, s.fields.map((x) => h("option", { value: x.name }, x.label)));
      const code = pick("column of codes");
      const label = pick("column of labels");
      columns.replaceChildren(" codes ", code, " labels ", label, " ", h("button", { type: "button", onclick: async () => {
        const list = await json(`/api/p/${project}/layers/${from.value}/codes?code=${code.value}&label=${label.value}`);
        f.codesFrom = { layer: from.value, code: code.value, label: label.value };
        setCodes(list);
      } }, "Take them, and keep in step"));
    });
    return h("div", { class: "grid gap-3" },
      f.type === "unique_id" ? null : h("label", { class: "flex gap-2 items-center" }, tick(f.readOnly, named + " fills itself", (v) => set("readOnly", v), readOnly), "Fills itself by its default and is never changed by hand; what is worked out of the place follows when the feature is moved"),
      h("label", {}, "Hint ", input(f.hint, "hint of " + named, (v) => set("hint", v), { size: 60, maxlength: 300, disabled: readOnly })),
      CODED.includes(f.type) || NUMBERS.includes(f.type) ? h("div", {},
        codes.length === 0 ? h("p", { class: "quiet" }, CODED.includes(f.type) ? "No codes yet." : "Any number; with codes it is chosen from a list.") : h("table", {}, h("thead", {}, h("tr", {}, ["Code", "Label", "Retired", "Fits when", "Alone", ""].map((t) => h("th", {}, t)))), h("tbody", {}, codes.map((c, k) => h("tr", {},
          h("td", {}, input(c.code, "code", (v) => { c.code = v; touch(); }, { class: "code", size: 14, disabled: readOnly })),
          h("td", {}, input(c.label, "label of code " + c.code, (v) => { c.label = v; touch(); }, { size: 22, disabled: readOnly })),
          h("td", {}, tick(c.retired, "retire " + c.label, (v) => { if (v) c.retired = true; else delete c.retired; touch(); }, readOnly)),
          h("td", {}, input(c.fitsWhen, "when " + c.label + " fits", (v) => { if (v) c.fitsWhen = v; else delete c.fitsWhen; touch(); }, { class: "code", size: 18, placeholder: "always", disabled: readOnly })),
          h("td", {}, f.type === "codes" ? tick(c.alone, c.label + " excludes the others", (v) => { if (v) c.alone = true; else delete c.alone; touch(); }, readOnly) : null),
          h("td", {}, readOnly ? null : [h("button", { type: "button", class: "plain", disabled: k === 0, "aria-label": "move " + c.label + " up", onclick: () => { codes.splice(k - 1, 0, codes.splice(k, 1)[0]); setCodes(codes); } }, symbol("up")), h("button", { type: "button", class: "plain", "aria-label": "take away " + c.label, onclick: () => setCodes(codes.filter((x) => x !== c)) }, "×")]))))),
        f.codesFound && known(f) && box.dataset.layer ? unlike(f) : null,
        f.codesFrom ? h("p", { class: "quiet" }, "Kept in step with another layer. ", readOnly ? null : h("button", { type: "button", class: "plain", onclick: () => { delete f.codesFrom; touch(); } }, "End that")) : null,
        readOnly ? null : h("div", { class: "flex flex-wrap gap-3 items-end mt-2" }, paste, how, h("button", { type: "button", onclick: () => add(paste.value) }, "Add these"),
          h("label", {}, "or a CSV of code and label ", h("input", { type: "file", accept: ".csv,.txt", onchange: async (e) => add(await e.target.files[0].text()) })),
          known(f) && box.dataset.layer ? h("button", { type: "button", onclick: async () => {
            const inUse = await json(`/api/p/${project}/layers/${box.dataset.layer}/codes?code=${f.name}&codes=${how.value}`);
            f.codesFound = true;
            setCodes([...codes, ...inUse.filter((m) => !codes.some((c) => c.code === m.code))]);
          } }, "Take the values in use") : null),
        (toldOf.get(f) ?? []).length > 0 ? h("ul", { class: "told mt-2", role: "status" }, toldOf.get(f).map((t) => h("li", {}, t))) : null,
        readOnly || others.length === 0 ? null : h("p", { class: "mt-2" }, "or from ", from, columns)) : null);
  }

  function draw() {
    stale = false;
    const focus = document.activeElement?.getAttribute?.("aria-label");
    const names = fields.filter((f) => f.name);
    const parts = [
      h("div", { class: "overflow-x-auto" }, h("table", { class: "bg-white w-full fields" }, h("thead", {}, h("tr", {}, ["Label", "Stored as", "Type", "", "May be empty", "Unique", "Office only", "Default", "", ""].map((t) => h("th", {}, t)))), h("tbody", {}, fields.flatMap(fieldRow).filter(Boolean)))),
      fields.length === 0 ? h("p", { class: "quiet my-2" }, "No fields yet. Add one, or copy those of another layer.") : null,
      h("div", { class: "flex flex-wrap gap-4 items-end my-3" },
        readOnly ? null : h("button", { type: "button", onclick: () => { fields.push({ label: "", type: "text" }); touch(); [...box.querySelectorAll('input[aria-label="label"]')].at(-1)?.focus(); } }, "Add a field"),
        readOnly || others.length === 0 ? null : h("label", { class: "label" }, "Copy the fields of ", h("select", { onchange: async (e) => {
          const s = await json(`/api/p/${project}/layers/${e.target.value}/schema`);
          for (const x of s.fields) if (!fields.some((f) => f.name === x.name)) fields.push(x);
          if (!tag) tag = s.tagField;
          if (captions.length === 0) captions = s.captionFields;
          touch();
        } }, h("option", { value: "" }, "choose a layer"), others.map((l) => h("option", { value: l.id }, l.name)))),
        h("label", { class: "label" }, "Tag field ", h("select", { disabled: readOnly, onchange: (e) => { tag = e.target.value; touch(); } }, h("option", { value: "" }, "none"), names.map((f) => h("option", { value: f.name, selected: f.name === tag }, f.label)))),
        names.length === 0 ? null : h("fieldset", {}, h("legend", { class: "label" }, "Caption fields"), h("span", { class: "flex flex-wrap gap-3" }, names.map((f) => h("label", {}, tick(captions.includes(f.name), "caption with " + f.label, (v) => { captions = v ? [...captions, f.name] : captions.filter((c) => c !== f.name); touch(); }, readOnly), " " + f.label))))),
    ];
    box.replaceChildren(...parts.filter(Boolean));
    if (focus) box.querySelector(`[aria-label="${CSS.escape(focus)}"]`)?.focus();
  }
  draw();
  return { schema: () => ({ kind: schema.kind, fields, tagField: tag, captionFields: captions }) };
}

async function layersOf(project) {
  return json(`/api/p/${project}/layer-names`);
}

/** The page of a layer's fields: edit, see what it would do, change. */
export async function fieldsPage(box) {
  const { project, layer } = box.dataset;
  const readOnly = box.dataset.may !== "true";
  const schema = await json(`/api/p/${project}/layers/${layer}/schema`);
  const others = (await layersOf(project)).filter((l) => l.id !== layer);
  const editor = h("div", { "data-layer": layer, "data-layers": JSON.stringify(others) });
  const told = h("div", { "aria-live": "polite" });
  const button = h("button", { type: "button", id: "fields-preview", hidden: true }, "See what this would do");
  box.replaceChildren(editor, h("p", { class: "mb-3" }, button), told);
  const made = await fieldsEditor(editor, { project, schema, fixed: schema.fields.map((f) => f.name), readOnly, changed: () => { button.hidden = false; told.replaceChildren(); } });
  button.addEventListener("click", async () => {
    try {
      const p = await post(`/api/p/${project}/layers/${layer}/fields/preview`, { schema: made.schema() });
      told.replaceChildren(effects(p, async () => {
        try {
          await post(`/api/p/${project}/layers/${layer}/fields`, { schema: made.schema(), seen: p.seen });
          location.reload();
        } catch (e) {
          told.replaceChildren(h("p", { class: "problem", role: "alert" }, e.message));
        }
      }));
    } catch (e) {
      told.replaceChildren(h("p", { class: "problem", role: "alert" }, e.message));
    }
  });
  box.dataset.ready = "true";
}

function effects(p, change) {
  const many = (n) => `${n} ${n === 1 ? "feature" : "features"}`;
  return h("section", { class: "card", id: "effects" }, h("h2", { class: "mb-2" }, "What this does"),
    p.effects.length === 0 ? h("p", {}, "No feature changes.") : h("ul", {}, p.effects.map((e) => h("li", { class: "py-1" }, h("strong", {}, e.field), ` ${e.said}`, e.count > 0 ? `: ${many(e.count)}` : "", e.told.length > 0 ? h("details", {}, h("summary", {}, "which"), h("ul", {}, e.told.map((t) => h("li", {}, `${t.caption || t.feature}: “${t.value}”`)))) : null))),
    p.uses.length > 0 ? h("p", { class: "told mt-2" }, p.uses.join("; ") + ". A question whose field goes keeps its answers on the visit then; a look without its field draws all features as everything else.") : null,
    h("p", { class: "mt-3" }, h("button", { type: "button", class: "main", id: "fields-change", onclick: change }, "Change the fields")), h("p", { class: "quiet mt-1" }, "It can be taken back in the layer's history."));
}
