// The pictures of a note: shown, added and taken out while a round is planned.
import { postFile } from "../../shell/server.js";
import { say } from "../../shell/say.js";
import { html, nothing } from "../../shell/view.js";

/** @typedef {import("./plan.js").Plan} Plan */

/** Where a picture of a note is. @param {string} project @param {string} id */
export const pictureAt = (project, id) => `/p/${project}/form-files/${encodeURIComponent(id)}`;

/** Pictures of a note that are looked at. @param {string} project @param {string[] | undefined} ids */
export const notePictures = (project, ids) =>
  ids?.length
    ? html`<p class="note-pictures">
        ${ids.map(
          (id) =>
            html`<a href=${pictureAt(project, id)} target="_blank"
              ><img src=${pictureAt(project, id)} alt=${say("desk.round.notePicture")} loading="lazy"
            /></a>`,
        )}
      </p>`
    : nothing;

/** Keeps chosen files; gives the ids of the pictures that are there then. @param {Plan} plan @param {string[]} ids @param {File[]} files @param {(ids: string[]) => void} set */
const add = (plan, ids, files, set) =>
  plan.trying(async () => {
    const { mostPictures } = plan.planning;
    if (ids.length + files.length > mostPictures) throw new Error(say("desk.round.noPictures", { most: mostPictures }));
    const all = [...ids];
    for (const file of files) {
      const { id } = await postFile(`/api/p/${plan.project}/round-pictures`, file);
      if (!all.includes(id)) all.push(id);
      set(all);
    }
  });

/** The pictures of a note, to be changed. @param {Plan} plan @param {string[]} ids @param {(ids: string[]) => void} set @param {{id: string, label: string}} named */
export function changePictures(plan, ids, set, { id: named, label }) {
  const choose = (e) => {
    const files = [...e.target.files];
    e.target.value = "";
    if (files.length) add(plan, ids, files, set);
  };
  return html`<div class="note-pictures" id=${named}>
    ${ids.map(
      (id) =>
        html`<span
          ><img src=${pictureAt(plan.project, id)} alt=${say("desk.round.notePicture")} loading="lazy" /><button
            type="button"
            class="plain"
            aria-label=${say("desk.round.dropPicture")}
            @click=${() => set(ids.filter((x) => x !== id))}
          >
            ×
          </button></span
        >`,
    )}<label class="button plain"
      >${say("desk.round.addPicture")}<input type="file" class="sr-only" accept="image/*" multiple aria-label=${label} @change=${choose}
    /></label>
  </div>`;
}
