// What is on the device and not at the office.
import { VISIT } from "../shell/states.js";
import * as store from "./store.js";

/**
 * What the office does not have yet: complete visits, those among them that it refused (kept apart with the reason), photos. A photo of a visit that was
 * set aside waits until that is read. Visits with a form of a file wait until the project has it.
 * @param {string | null} person @param {any[]} [visits] this person's visits, where they were just read
 */
export async function carried(person, visits) {
  const all = visits ?? (await store.all("visits")).filter((v) => v.person === person);
  const complete = all.filter((v) => v.status === VISIT.COMPLETE);
  const of = new Map(all.map((v) => [v.id, v]));
  const photos = (await store.all("photos")).filter(
    (p) =>
      !p.sent &&
      !(of.get(p.visit)?.formFile && !of.get(p.visit).form) &&
      of.has(p.visit) &&
      of.get(p.visit).status !== VISIT.BEGUN &&
      !of.get(p.visit).refused,
  );
  const isSendable = (v) => !v.refused && !(v.formFile && !v.form);
  return {
    visits: complete.filter(isSendable),
    waiting: complete.filter((v) => v.formFile && !v.form),
    refused: complete.filter((v) => v.refused),
    photos: photos.filter((p) => of.get(p.visit).office?.state !== VISIT.SET_ASIDE),
    begun: all.filter((v) => v.status === VISIT.BEGUN),
  };
}
