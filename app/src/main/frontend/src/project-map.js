// The project's map: all layers over a basemap, their order, names and strength; saved for everybody and for the day book.
import { Upload } from "tus-js-client";
import { post, request, token } from "./api.js";
import { withBasemaps } from "./basemaps.js";
import { h } from "./dom.js";
import { symbol } from "./symbols.js";
import { LayerOnMap } from "./layer-on-map.js";
import { entrySaid, url } from "./look.js";
import * as maps from "./map.js";


export async function projectMapPage(box) {
  const { project } = box.dataset;
  const may = box.dataset.may === "true";
  const target = h("div", { class: "map h-[calc(100dvh-160px)] min-h-[480px]", tabindex: "0", "aria-label": "The project's map; its layers are listed beside it" });
  const list = h("ol", { id: "map-layers", class: "flex flex-col gap-1" });
  const said = h("span", { role: "status", id: "map-said", class: "quiet" });
  const problem = h("p", { class: "problem", role: "alert", hidden: true });
  const save = h("button", { class: "main", type: "button", id: "save-map", disabled: true }, "Save this map for everybody");
  const own = h("div", { class: "card mt-3", id: "own-basemaps" });
  box.append(problem, h("div", { class: "grid gap-4 lg:grid-cols-[1fr_380px]" }, target, h("div", { class: "h-[calc(100dvh-160px)] min-h-[480px] overflow-y-auto" }, may && h("div", { class: "stay-top flex items-center gap-3" }, save, said), h("p", { class: "quiet mb-2" }, "From the top down. Alt and an arrow key move a layer."), list, may && own)));
  const fail = (e) => {
    problem.textContent = e.message ?? e;
    problem.hidden = false;
  };

  let state = await (await request(`/api/p/${project}/map`)).json();
  const map = maps.makeMap(target);
  const dirty = () => {
    save.disabled = false;
    said.textContent = "Changed on your map only.";
  };
  let begun = false;
  const basemaps = await withBasemaps(map, project, (b) => {
    if (begun && b.id !== state.basemap) {
      state.basemap = b.id;
      dirty();
    }
  });
  begun = true;
  const onMap = new Map();
  const z = () => state.layers.forEach((l, i) => onMap.get(l.id)?.place({ zIndex: 10 + state.layers.length - i, opacity: l.opacity, visible: l.on }));
  const draw = async (l) => {
    if (onMap.has(l.id) || !l.on) return;
    const drawn = new LayerOnMap(map, `/api/p/${project}/layers/${l.id}`, {});
    drawn.failure = fail;
    const load = drawn.load.bind(drawn);
    // a layer that was switched off stays so when the map moves
    drawn.load = async (anew) => {
      await load(anew);
      drawn.place({ visible: state.layers.find((x) => x.id === l.id)?.on ?? false });
    };
    onMap.set(l.id, drawn);
    await drawn.start();
    z();
  };

  const move = (i, by) => {
    const to = i + by;
    if (!may || to < 0 || to >= state.layers.length) return;
    state.layers.splice(to, 0, ...state.layers.splice(i, 1));
    dirty();
    render();
    z();
    list.children[to].querySelector(".order")?.focus();
  };
  let dragged = -1;
  function render() {
    list.replaceChildren(...state.layers.map((l, i) => {
      const plan = onMap.get(l.id)?.plan;
      return h("li", { class: "card py-2", "data-layer": l.id, draggable: may, ondragstart: () => (dragged = i), ondragover: (e) => e.preventDefault(), ondrop: () => dragged >= 0 && move(dragged, i - dragged) },
        h("div", { class: "flex items-center gap-2" },
          h("input", { type: "checkbox", checked: l.on, "aria-label": `Show ${l.name}`, onchange: async (e) => {
            l.on = e.target.checked;
            dirty();
            await draw(l).catch(fail);
            z();
            render();
          } }),
          may ? h("input", { class: "flex-1 min-w-0", value: l.shortName, placeholder: l.name, "aria-label": `Short name of ${l.name}`, maxlength: "40", onchange: (e) => {
            l.shortName = e.target.value;
            dirty();
          } }) : h("span", { class: "flex-1" }, l.shortName || l.name),
          may && h("button", { type: "button", class: "plain order", "aria-label": `Move ${l.name} up`, disabled: i === 0, onclick: () => move(i, -1), onkeydown: (e) => {
            if (!e.altKey || !["ArrowUp", "ArrowDown"].includes(e.key)) return;
            e.preventDefault();
            move(i, e.key === "ArrowUp" ? -1 : 1);
          } }, symbol("up")),
          may && h("button", { type: "button", class: "plain", "aria-label": `Move ${l.name} down`, disabled: i === state.layers.length - 1, onclick: () => move(i, 1) }, symbol("down"))),
        l.on && h("div", { class: "flex items-center gap-2 mt-1" },
          h("label", { class: "text-sm flex items-center gap-2" }, "Opacity", h("input", { type: "range", min: "0", max: "1", step: "0.05", value: String(l.opacity), "aria-label": `Opacity of ${l.name}`, oninput: (e) => {
            l.opacity = Number(e.target.value);
            dirty();
            z();
          } })),
          h("a", { class: "text-sm ml-auto", href: `/p/${project}/layers/${l.id}/look` }, "Look")),
        l.on && plan && h("ul", { class: "legend mt-1 text-sm" }, plan.entries.map((e, k) => (e.draws.length === 0 ? null : h("li", {}, h("img", { src: url(e.symbol), alt: "" }), h("span", {}, entrySaid(plan, k, l.shortName || l.name)))))));
    }));
  }
  save.addEventListener("click", async () => {
    try {
      state = { ...state, revision: (await post(`/api/p/${project}/map`, state)).revision };
      save.disabled = true;
      said.textContent = "Saved for everybody.";
      problem.hidden = true;
    } catch (e) {
      fail(e);
    }
  });

  function renderOwn() {
    const file = h("input", { type: "file", accept: ".mbtiles,.gpkg", class: "sr-only", id: "basemap-file" });
    const going = h("span", { role: "status", class: "quiet" });
    file.addEventListener("change", () => {
      const f = file.files[0];
      if (!f) return;
      new Upload(f, {
        endpoint: `/api/p/${project}/basemap-uploads`,
        chunkSize: 4 * 1024 * 1024,
        retryDelays: [500, 1000, 3000, 5000],
        metadata: { name: f.name },
        headers: token(),
        storeFingerprintForResuming: false,
        onProgress: (n, of) => (going.textContent = `${Math.round((100 * n) / of)} %`),
        onError: (e) => {
          going.textContent = "";
          fail(e.originalResponse ? `The basemap was refused: ${e.originalResponse.getBody()}` : e.message);
        },
        onSuccess: () => location.reload(),
      }).start();
    });
    own.replaceChildren(h("h2", {}, "Basemaps"),
      h("ul", {}, basemaps.filter((b) => b.id !== "none").map((b) => h("li", { class: "py-1" }, h("div", { class: "flex items-center gap-2" }, h("span", { class: "flex-1" }, b.name), b.grid && h("button", { type: "button", class: "plain", onclick: async () => {
        if (!confirm(`Take the basemap “${b.name}” away? Maps that show it will show another one.`)) return;
        try {
          await request(`/api/p/${project}/basemaps/${b.id}`, { method: "DELETE", headers: token() });
          location.reload();
        } catch (e) {
          fail(e);
        }
      } }, "Take away")), b.notes.map((n) => h("p", { class: "quiet text-sm" }, n))))),
      h("div", { class: "flex items-center gap-2 mt-2" }, h("label", { class: "button" }, "Bring one in", file), going),
      h("p", { class: "quiet text-sm mt-1" }, "Pictures in tiles: an MBTiles file, or a GeoPackage with tiles in EPSG:3857 or EPSG:4326."));
  }

  renderOwn();
  render();
  // so that all layers have their extent before the map is placed
  await Promise.all(state.layers.map((l) => draw(l).catch(fail)));
  z();
  render();
  const extents = [...onMap.values()].map((d) => d.extent()).filter(Boolean);
  if (extents.length) maps.show(map, [Math.min(...extents.map((e) => e[0])), Math.min(...extents.map((e) => e[1])), Math.max(...extents.map((e) => e[2])), Math.max(...extents.map((e) => e[3]))], 20);
  box.dataset.ready = "true";
}
