// Visits on the device: begun, changed, saved. The rules run in the engine; this module keeps. hand-in.js sends.
import { say } from "../shell/say.js";
import { VISIT } from "../shell/states.js";
import { loadEngine } from "../shell/engine.js";
import { book, fileForm, placed as placeKept } from "./book.js";
import { formFiles } from "./form-file.js";
import { currentFix, offsetMinutes } from "./fix.js";
import { deviceName } from "./device.js";
import { filesOf } from "./form-files.js";
import { asJpeg } from "./jpeg.js";
import { Near } from "./near.js";
import { sha256, workHash } from "./pack.js";
import { prepared } from "./prepared.js";
import { viewOf } from "../sheet/known.js";
import * as store from "./store.js";

/** Where a visit is: where its pin was moved to, else where its feature is; a new one is where the device is. */
function placeOf(state, feature, fix) {
  const at = state?.place;
  if (at && (at.moved || feature.made)) return placeKept(at);
  return feature.geometry ?? (feature.made && fix ? { type: "Point", coordinates: [fix.lon, fix.lat] } : null);
}

/** Opens a feature with a form: goes on with its visit if one is here, else begins one. @param {any} pack @param {any} feature @param {string} formId @param {any} existing */
export async function openVisit(pack, feature, formId, existing) {
  const file = (await formFiles(pack.round)).find((f) => fileForm(f.hash) === formId);
  const hash = existing?.work ?? file?.work ?? workHash(pack, formId);
  const { work, form, layers } = await prepared(pack, hash, feature.layer);
  const near = new Near(await loadEngine(), pack, layers);
  const fix = currentFix();
  await near.to(placeOf(existing?.state, feature, fix));
  const last = pack.last[formId]?.[feature.id];
  const visit = existing ?? {
    id: crypto.randomUUID(),
    round: pack.round,
    ...(file ? { formFile: file.hash } : formId && { form: formId }),
    feature: feature.id,
    caption: feature.caption,
    person: book.person,
    work: hash,
    status: VISIT.BEGUN,
    startedAt: new Date().toISOString(),
    photos: [],
    base: feature,
    start: {
      person: book.person,
      device: deviceName(),
      startedAt: new Date().toISOString(),
      offset: offsetMinutes(),
      edition: work.edition,
      position: fix ? { lon: fix.lon, lat: fix.lat, accuracy: fix.accuracy, height: fix.height, bearing: fix.bearing } : undefined,
      ...(feature.made && { new: feature.made }),
      last: last?.answers,
      lastDay: last?.day,
    },
  };
  const open = form.visit(
    JSON.stringify({ ...visit.start, system: work.system }),
    visit.base.made ? "" : JSON.stringify(visit.base),
    layers,
    visit.state ? JSON.stringify(visit.state) : "",
  );
  // another form of what was made here begins where the first one is
  if (!existing && feature.made && feature.geometry) open.reshape(JSON.stringify(feature.geometry));
  return new OpenVisit(visit, open, work, { files: await filesOf(pack, work.form), near });
}

/** A visit whose form came from a file, gone on with as the project has that form. @param {any} v @param {any} pack @param {any} work @param {string} part */
export async function bind(v, pack, work, part) {
  const { form, layers } = await prepared(pack, part, work.layer.id);
  const start = { ...v.start, edition: work.edition };
  const going = form.visit(JSON.stringify({ ...start, system: work.system }), "", layers, JSON.stringify(v.state));
  const bound = { ...v, form: work.id, work: part, start, base: { ...v.base, layer: work.layer.id, ofForm: work.id } };
  const state = JSON.parse(going.saved());
  // what it asks beyond the file is still to be filled
  if (!going.isComplete()) return { ...bound, state, status: VISIT.BEGUN };
  return { ...bound, state, result: JSON.parse(going.result()) };
}

export class OpenVisit {
  #saving = Promise.resolve();
  #view;

  /** @param {any} visit @param {any} open @param {any} work @param {{files: Map<string, string>, near: Near}} more where what travels with the form is, and what look-ups ask */
  constructor(visit, open, work, { files, near }) {
    this.visit = visit;
    this.files = files;
    this.near = near;
    this.open = open;
    this.#view = viewOf(open);
    this.work = work;
    this.touched = Boolean(visit.state);
  }

  view() {
    return this.#view();
  }

  /** Moves its position; look-ups have at hand what is there before. @param {number} lon @param {number} lat */
  async moveTo(lon, lat) {
    await this.near.to({ type: "Point", coordinates: [lon, lat] });
    this.open.moveTo(lon, lat);
  }

  /** Gives it another place, of its layer's kind. @param {any} geometry GeoJSON */
  async reshape(geometry) {
    await this.near.to(geometry);
    this.open.reshape(JSON.stringify(geometry));
  }

  /** Keeps the visit as it is now. Changes after completion make it begun again, until it is saved again. */
  async keep(status = VISIT.BEGUN) {
    this.touched = true;
    const v = this.visit;
    v.state = JSON.parse(this.open.saved());
    if (v.base.made) v.caption = this.view().caption || v.caption;
    v.status = status;
    v.changedAt = new Date().toISOString();
    if (status === VISIT.COMPLETE) {
      v.endedAt = v.changedAt;
      v.result = JSON.parse(this.open.result());
      delete v.office;
      delete v.refused;
    }
    this.#saving = this.#saving.then(
      () => store.put("visits", structuredClone(v)),
      () => store.put("visits", structuredClone(v)),
    );
    return this.#saving;
  }

  /** Takes a photo: the geotag goes into its bytes here, before they are hashed; afterwards they are final. */
  async addPhoto(question, file, row = "") {
    const engine = await loadEngine();
    const fix = currentFix();
    let bytes = new Uint8Array(await (await asJpeg(file, this.work.form.settings?.photoPixels ?? 0)).arrayBuffer());
    let geotag = null;
    let note = say("day.shot.noPosition");
    if (fix) {
      geotag = {
        lon: fix.lon,
        lat: fix.lat,
        accuracy: fix.accuracy,
        direction: fix.heading,
        at: new Date().toISOString(),
        offset: offsetMinutes(),
      };
      const tagged = engine.geotag(new Int8Array(bytes.buffer), JSON.stringify(geotag));
      if (tagged) {
        bytes = new Uint8Array(tagged);
        note = placed(fix);
      } else {
        geotag = null;
        note = say("day.shot.notWritten");
      }
    }
    const photo = {
      id: crypto.randomUUID(),
      visit: this.visit.id,
      question,
      blob: new Blob([bytes], { type: "image/jpeg" }),
      sha256: await sha256(bytes),
      bytes: bytes.length,
      geotag,
      note,
    };
    const before = this.open.saved();
    const ids = valueOf(this.view(), question, row) ?? [];
    this.open.setIn(question, row, JSON.stringify([...ids, photo.id]));
    const v = this.visit;
    v.photos.push({ id: photo.id, question, sha256: photo.sha256, bytes: photo.bytes, geotag });
    v.state = JSON.parse(this.open.saved());
    v.status = VISIT.BEGUN;
    try {
      await this.#saving.catch(() => {});
      await store.putPhoto(photo, structuredClone(v));
      this.touched = true;
    } catch (e) {
      v.photos.pop();
      v.state = JSON.parse(before);
      this.open.setIn(question, row, JSON.stringify(ids));
      throw e;
    }
    return photo;
  }

  async removePhoto(question, id, row = "") {
    const ids = (valueOf(this.view(), question, row) ?? []).filter((x) => x !== id);
    this.open.setIn(question, row, JSON.stringify(ids));
    this.visit.photos = this.visit.photos.filter((p) => p.id !== id);
    await this.keep();
    await store.remove("photos", id);
  }
}

/** How a photo was placed. */
function placed(fix) {
  const accuracy = Math.round(fix.accuracy ?? 0);
  if (fix.heading === undefined) return say("day.shot.placed", { accuracy });
  return say("day.shot.looking", { accuracy, direction: Math.round(fix.heading) });
}

function valueOf(view, name, row) {
  for (const s of view.sections) {
    const questions = row ? (s.rows?.find((r) => r.id === row)?.questions ?? []) : s.questions;
    for (const q of questions) if (q.name === name) return q.value;
  }
  return undefined;
}
