// The photos of an open visit: taken, shown, taken away.
import { say } from "../../shell/say.js";
import * as store from "../store.js";

/** @param {{visit: any, told: (kind: string, text: string) => void, draw: () => void}} how */
export async function pictures({ visit, told, draw }) {
  const urls = new Map();
  const notes = new Map();
  const remember = (photo) => {
    urls.set(photo.id, URL.createObjectURL(photo.blob));
    notes.set(photo.id, photo.note);
  };
  for (const photo of (await store.all("photos")).filter((p) => p.visit === visit.visit.id)) remember(photo);
  return {
    deeds: {
      addPhoto: async (name, file, row) => {
        try {
          remember(await visit.addPhoto(name, file, row));
          told("done", say("day.photoKept"));
        } catch (e) {
          told("problem", e instanceof store.StoreFull ? say("day.full.photo") : say("day.noPicture"));
        }
        draw();
      },
      removePhoto: async (name, id, row) => {
        await visit.removePhoto(name, id, row);
        draw();
      },
      picture: (id) => visit.files.get(id),
      photo: (id) => ({ url: urls.get(id), note: notes.get(id) }),
    },
    end: () => {
      for (const u of urls.values()) URL.revokeObjectURL(u);
    },
  };
}
