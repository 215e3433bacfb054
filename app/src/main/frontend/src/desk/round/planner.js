// The planner: choosing stops on several layers, ordering and splitting them, and what is said of the round. A plan that was not made is kept for the page's next opening.
import { say } from "../../shell/say.js";
import { drawn, html, nothing } from "../../shell/view.js";
import { aboutPart, formsPart, packPart, wayPart } from "./about-round.js";
import { choosePanel } from "./choose-panel.js";
import { begin, goOn, keepable, make, Outlook } from "./outlook.js";
import { PlanMap } from "./plan-map.js";
import { stopList, summary } from "./stop-list.js";

/** @param {import("./plan.js").Plan} plan */
function told(plan) {
  return html`${plan.failure ? html`<p class="problem" role="alert">${plan.failure}</p>` : nothing}
  ${plan.said ? html`<p class="told" role="status" id="said">${plan.said}</p>` : nothing}`;
}

/** @param {import("./plan.js").Plan} plan @param {() => void} made */
function foot(plan, made) {
  const stops = say("desk.round.stops", { n: plan.stops.size });
  const label =
    plan.forms.length === 0
      ? say("desk.round.chooseForm")
      : !plan.ready && !plan.tooMany
        ? say("desk.round.chooseFirst")
        : plan.split
          ? say("desk.round.makeSeveral", { n: plan.ways.length, stops })
          : plan.stops.size
            ? say("desk.round.make", { stops })
            : say("desk.round.makeOpen");
  return html`<button class="main w-full justify-center" type="button" id="make-round" ?disabled=${!plan.ready || plan.busy} @click=${made}>
    ${label}
  </button>`;
}

/** Keeps the plan in this window until it is made. @param {string} key @param {import("./plan.js").Plan} plan */
function keep(key, plan) {
  if (plan.stops.size === 0 && !plan.typed.name && !plan.typed.note && plan.typed.pictures.length === 0)
    return window.sessionStorage.removeItem(key);
  try {
    window.sessionStorage.setItem(key, JSON.stringify(keepable(plan)));
  } catch {
    window.sessionStorage.removeItem(key); // more than the window can keep: better none than half of it
  }
}

/** Goes on with what was planned and not made, unless a round is copied. */
async function takeUp(key, plan) {
  const was = window.sessionStorage.getItem(key);
  if (!was) return;
  try {
    await goOn(plan, JSON.parse(was));
    plan.set({ said: [say("desk.round.goesOn"), plan.said].filter(Boolean).join(" ") });
  } catch (e) {
    window.sessionStorage.removeItem(key); // as another edition of the page wrote it
    plan.set({ failure: e.message });
  }
}

/** @param {HTMLElement} box */
export async function plannerPage(box) {
  const { project = "" } = box.dataset;
  const part = (id) => /** @type {HTMLElement} */ (box.querySelector("#" + id));
  const like = new URLSearchParams(location.search).get("like") ?? "";
  const asked = new URLSearchParams(location.search).get("form") ?? "";
  const key = "plan:" + project;
  /** @type {() => void} */
  let draw = () => {};
  const plan = await begin(project, like, () => draw());
  if (plan.planning.forms.some((f) => f.id === asked)) plan.forms = [asked];
  if (!like) await takeUp(key, plan);
  const outlook = new Outlook(plan);
  const map = new PlanMap(part("planner-map"), plan, { start: say("desk.round.start"), end: say("desk.round.end") });
  const made = async () => {
    const address = await make(plan);
    if (address === undefined) return;
    draw = () => {};
    window.sessionStorage.removeItem(key);
    location.href = address;
  };
  const all = [
    drawn(part("planner-told"), () => told(plan)),
    drawn(part("planner-head"), () => choosePanel(plan)),
    drawn(
      part("planner-side"),
      () =>
        html`${formsPart(plan)}
          <section class="card">${summary(plan)}${stopList(plan, map)}</section>
          ${wayPart(plan, outlook)}${aboutPart(plan)}${packPart(plan)}`,
    ),
    drawn(part("planner-foot"), () => foot(plan, made)),
  ];
  draw = () => {
    all.forEach((one) => one());
    map.draw();
    keep(key, plan);
  };
  document.addEventListener("keydown", (e) => {
    if (/** @type {Element} */ (e.target).matches("input, textarea, select")) return;
    if ((e.ctrlKey || e.metaKey) && e.key === "z") {
      e.preventDefault();
      plan.undo();
    }
    if (e.key === "Escape") plan.set({ tool: "", asking: "" });
  });
  await map.start(project);
  plan.measure();
  draw();
  box.dataset.ready = "true";
}
