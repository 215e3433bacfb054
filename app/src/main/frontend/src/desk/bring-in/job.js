// How far a job is that runs on the server.
import { number } from "../../shell/styles.js";
import { say } from "../../shell/say.js";
import { getJson } from "../../shell/server.js";

/** So often it is asked, in milliseconds. */
const EACH = 700;

function progress(s) {
  if (s.done === 0) return say("desk.job.begun", { seconds: number(s.seconds) });
  const how = { done: number(s.done), total: number(s.total), seconds: number(s.seconds) };
  return s.total > 0 ? say("desk.job.of", how) : say("desk.job.done", how);
}

/** @param {HTMLElement} box */
export function jobPage(box) {
  const part = (id) => /** @type {any} */ (box.querySelector("#" + id));
  const look = async () => {
    try {
      const s = await getJson(box.dataset.state ?? "");
      if (s.stage !== "running") return location.reload();
      part("job-doing").textContent = s.doing;
      if (s.total > 0) part("job-bar").value = Math.min(100, (100 * s.done) / s.total);
      else part("job-bar").removeAttribute("value");
      part("job-said").textContent = progress(s);
    } catch (e) {
      part("job-said").textContent = e.message;
    }
    setTimeout(look, EACH);
  };
  setTimeout(look, EACH / 2);
}
