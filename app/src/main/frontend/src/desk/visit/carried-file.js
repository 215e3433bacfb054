// Bringing in what a device carries, as a file.
import { fileButton } from "../../shell/controls.js";
import { say } from "../../shell/say.js";
import { getJson } from "../../shell/server.js";
import { number } from "../../shell/styles.js";
import { upload } from "../../shell/upload.js";
import { drawn, html, nothing } from "../../shell/view.js";

/** What came of it, line by line; lines that say nothing are left out. */
const lines = (b) =>
  [
    say("desk.carried.visits", { n: b.visits, person: b.person, device: b.device }),
    say("desk.carried.photos", { n: b.photos }),
    b.setAside ? say("desk.carried.setAside", { n: b.setAside }) : "",
    b.elsewhere ? say("desk.carried.elsewhere", { n: b.elsewhere }) : "",
    b.busy ? say("desk.carried.busy", { n: b.busy }) : "",
    b.unwanted ? say("desk.carried.unwanted", { n: b.unwanted }) : "",
  ].filter(Boolean);

/** @param {HTMLElement} box */
export function carriedFileCard(box) {
  const home = `/api/p/${box.dataset.project ?? ""}`;
  let going = "";
  let failure = "";
  /** @type {any} */
  let brought = null;
  async function bring(file) {
    [going, failure, brought] = ["", "", null];
    const told = (n, of) => {
      going = number(n / of, { style: "percent" });
      draw();
    };
    try {
      const sent = upload(file, { endpoint: home + "/carried-uploads", metadata: { name: file.name }, told });
      sent.start();
      const { url } = await sent.done;
      brought = await getJson(`${home}/carried/${url.split("/").at(-1)}`);
    } catch (e) {
      failure = e.message;
    }
    going = "";
    draw();
  }
  const draw = drawn(
    box,
    () =>
      html`<div class="flex flex-wrap items-center gap-3">
          ${fileButton(say("desk.carried.choose"), ".zip", bring)}<span role="status" class="quiet">${going}</span>
        </div>
        ${failure ? html`<p class="problem mt-2" role="alert">${failure}</p>` : nothing}
        ${
          brought
            ? html`<div class="done mt-2" role="status">
                <ul>
                  ${lines(brought).map((l) => html`<li>${l}</li>`)}
                </ul>
                <p><a href="">${say("desk.carried.seeList")}</a></p>
              </div>`
            : nothing
        }`,
  );
  draw.now();
}
