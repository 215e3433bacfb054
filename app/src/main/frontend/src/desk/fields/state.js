// The fields of a layer as they are being edited: order, types, codes, which one names a feature.
import { say } from "../../shell/say.js";
import { getJson, post } from "../../shell/server.js";

export const TEXTS = ["text"];
export const NUMBERS = ["whole", "decimal"];
export const CODED = ["code", "codes"];

export class FieldsState {
  /** @type {string[]} */
  fixed;
  /** @type {() => void} */
  hear;
  /** @type {() => void} */
  draw;
  /** @type {string} */
  project;
  /** @type {string} */
  layer;
  /** @type {string} */
  kind;
  tag = "";
  captions = [];
  /** Fields whose codes and hints are open. @type {Set<any>} */
  open = new Set();
  /** What adding codes came to, by field. */
  told = new WeakMap();
  /** The layer whose columns are offered as codes, by field. */
  from = new WeakMap();
  /** Codes that look like one value, by field. */
  alike = new WeakMap();

  /** @param {{project: string, layer?: string, schema: any, fixed: string[], types: any[], others: any[], readOnly: boolean, changed: () => void, drawn: () => void}} how */
  constructor({ project, layer, schema, fixed, types, others, readOnly, changed, drawn }) {
    Object.assign(this, { project, layer, kind: schema.kind, fixed, types, others, readOnly, hear: changed, draw: drawn });
    this.fields = structuredClone(schema.fields);
    this.tag = schema.tagField ?? "";
    this.captions = [...(schema.captionFields ?? [])];
  }

  /** Whether a field stands on the layer already, so that its storage name stays. */
  known(f) {
    return this.fixed.includes(f.name);
  }
  touch() {
    this.hear();
    this.draw();
  }
  /** Sets a property of a field or code; what is empty or false is left out. */
  set(of, key, value) {
    if (value === "" || value === false || value === undefined || value === null) delete of[key];
    else of[key] = value;
    this.touch();
  }
  async label(f, label) {
    f.label = label;
    if (!this.known(f) && label) {
      f.name = (await getJson(`/api/p/${this.project}/field-name?label=${encodeURIComponent(label)}`)).name;
    }
    this.touch();
  }
  type(f, type) {
    f.type = type;
    if (CODED.includes(type)) this.open.add(f);
    this.touch();
  }
  mayBeEmpty(f, may) {
    if (may) delete f.nullable;
    else f.nullable = false;
    this.touch();
  }
  /** A value to begin with: fixed, or by a formula. @param {any} f @param {string} text @param {boolean} formula */
  start(f, text, formula) {
    this.set(f, "start", text === "" && !formula ? "" : formula ? { formula: text } : { fixed: text });
  }
  turn(f) {
    if (!this.open.delete(f)) this.open.add(f);
    this.draw();
  }
  add() {
    this.fields.push({ label: "", type: "text" });
    this.touch();
  }
  remove(i) {
    const [f] = this.fields.splice(i, 1);
    if (this.tag === f.name) this.tag = "";
    this.captions = this.captions.filter((c) => c !== f.name);
    this.touch();
  }
  async copyFrom(layer) {
    const s = await this.schemaOf(layer);
    for (const x of s.fields) if (!this.fields.some((f) => f.name === x.name)) this.fields.push(x);
    if (!this.tag) this.tag = s.tagField;
    if (this.captions.length === 0) this.captions = s.captionFields;
    this.touch();
  }
  caption(f, on) {
    this.captions = on ? [...this.captions, f.name] : this.captions.filter((c) => c !== f.name);
    this.touch();
  }

  setCodes(f, codes) {
    this.set(f, "codes", codes.length ? codes : "");
  }
  /** Adds pasted codes. @param {any} f @param {string} text @param {string} how */
  async addCodes(f, text, how) {
    const there = f.codes ?? [];
    const got = await post(`/api/p/${this.project}/codes`, { text, codes: how, there });
    this.told.set(f, [say("desk.codes.added", { n: got.codes.length }), ...got.told]);
    this.setCodes(f, [...there, ...got.codes]);
  }
  /** Takes the values in use as codes. @param {any} f @param {string} how */
  async codesInUse(f, how) {
    const inUse = await getJson(`/api/p/${this.project}/layers/${this.layer}/codes?code=${f.name}&codes=${how}`);
    const there = f.codes ?? [];
    f.codesFound = true;
    this.setCodes(f, [...there, ...inUse.filter((m) => !there.some((c) => c.code === m.code))]);
  }
  schemaOf(layer) {
    return getJson(`/api/p/${this.project}/layers/${layer}/schema`);
  }
  /** Takes codes from two columns of another layer, and keeps them in step. */
  async codesFrom(f, { layer, code, label }) {
    const list = await getJson(`/api/p/${this.project}/layers/${layer}/codes?code=${code}&label=${label}`);
    f.codesFrom = { layer, code, label };
    this.setCodes(f, list);
  }
  /** Which codes of a found list look like one value; asked once for each field, drawn when it is known. */
  alikeOf(f) {
    const known = this.alike.get(f);
    if (known) return known;
    const asked = {};
    this.alike.set(f, asked);
    getJson(`/api/p/${this.project}/layers/${this.layer}/spellings?field=${f.name}`).then(
      (groups) => {
        asked.groups = groups;
        this.draw();
      },
      (e) => {
        asked.failure = e.message;
        this.draw();
      },
    );
    return asked;
  }

  schema() {
    return { kind: this.kind, fields: this.fields, tagField: this.tag, captionFields: this.captions };
  }
}
