// Coordinate systems: a field that finds them by name or number, and shows the name of the one that is chosen.
import { request } from "./api.js";

/** Makes an input offer systems; `changed(code)` is called when another one was chosen. */
export function systemField(input, project, changed = () => {}) {
  const list = document.getElementById(input.getAttribute("list"));
  const name = input.closest("section, form, .part")?.querySelector(".system-name");
  let timer;
  const find = async () => {
    const q = input.value.trim();
    const { systems } = await (await request(`/api/p/${project}/systems?q=${encodeURIComponent(q)}`)).json();
    list.replaceChildren(...systems.map((s) => Object.assign(document.createElement("option"), { value: s.code, textContent: s.name })));
    const hit = systems.find((s) => s.code === q || s.code === "EPSG:" + q);
    if (name) name.textContent = hit ? hit.name + "." : "";
    if (hit || q === "") changed(hit?.code ?? "");
  };
  input.addEventListener("input", () => {
    clearTimeout(timer);
    timer = setTimeout(() => find().catch(() => {}), 250); // no link: what was typed is still sent and checked
  });
  find().catch(() => {});
}

/** The form of outputs. */
export const takeOutPage = (form) => systemField(form.querySelector("#system"), form.dataset.project);
