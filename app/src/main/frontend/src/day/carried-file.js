// What the device carries, as a file: for a device that can't hand in by itself any more. It is written on the device and needs no link.
import { strToU8, Zip, ZipPassThrough } from "fflate";
import { VISIT } from "../shell/states.js";
import { deviceId, deviceName } from "./device.js";
import * as store from "./store.js";
import { visitDocument } from "./visit-document.js";

const FORMAT = "whinridge-carried";
const VERSION = 1;
/** What was written so far is put into a blob of its own from so many bytes on, so that it need not stay in memory. */
const BLOB_BYTES = 8_000_000;

/** A ZIP archive being written. */
class Archive {
  constructor() {
    /** @type {BlobPart[]} */
    this.blobs = [];
    /** @type {BlobPart[]} */
    this.open = [];
    this.size = 0;
    /** @type {Error | null} */
    this.failed = null;
    this.zip = new Zip((e, bytes) => {
      if (e) this.failed = e;
      else this.take(bytes);
    });
  }

  take(bytes) {
    this.open.push(bytes);
    this.size += bytes.length;
    if (this.size < BLOB_BYTES) return;
    this.blobs.push(new Blob(this.open));
    this.open = [];
    this.size = 0;
  }

  /** @param {string} name @param {Blob} blob */
  async add(name, blob) {
    const entry = new ZipPassThrough(name);
    this.zip.add(entry);
    const reader = blob.stream().getReader();
    for (let r = await reader.read(); !r.done; r = await reader.read()) entry.push(r.value);
    entry.push(new Uint8Array(0), true);
  }

  end() {
    this.zip.end();
    if (this.failed) throw this.failed;
    return new Blob([...this.blobs, ...this.open], { type: "application/zip" });
  }
}

/** What is in the file: every complete visit that the office did not say it has, and every photo of theirs or of others that it did not. */
async function contents(person) {
  const visits = (await store.all("visits")).filter((v) => v.person === person);
  const out = new Set(visits.filter((v) => v.status !== VISIT.BEGUN).map((v) => v.id));
  return {
    visits: visits.filter((v) => v.status === VISIT.COMPLETE),
    photos: (await store.all("photos")).filter((p) => !p.sent && out.has(p.visit)),
  };
}

/** Writes the file. Gives it with what is in it. @param {string} person */
export async function carriedFile(person) {
  const { visits, photos } = await contents(person);
  const head = { format: FORMAT, version: VERSION, id: crypto.randomUUID(), person, device: deviceName(), deviceId: await deviceId() };
  const document = { ...head, writtenAt: new Date().toISOString(), visits: visits.map(visitDocument) };
  const archive = new Archive();
  await archive.add("hand-in.json", new Blob([strToU8(JSON.stringify(document))]));
  for (const p of photos) await archive.add(`photos/${p.id}.jpg`, p.blob);
  const day = document.writtenAt.slice(0, 10);
  const name = `${person} ${day}`.replaceAll(/[^\p{L}\p{N}]+/gu, "-");
  return {
    file: new File([archive.end()], `carried-${name}.zip`, { type: "application/zip" }),
    visits: visits.length,
    photos: photos.length,
  };
}

/** Gives a file to whoever uses the device: by what the system offers for that, else as a download. @param {File} file */
export async function give(file) {
  const share = { files: [file], title: file.name };
  if (navigator.maxTouchPoints > 0 && navigator.canShare?.(share)) {
    try {
      await navigator.share(share);
      return;
    } catch (e) {
      if (e.name === "AbortError") return; // the person changed their mind
    }
  }
  const url = URL.createObjectURL(file);
  Object.assign(document.createElement("a"), { href: url, download: file.name }).click();
  setTimeout(() => URL.revokeObjectURL(url), 60_000);
}
