// The small map of the workshop: the feature of the proof, what stands around it, and what the open question's look-ups found.
import { withBasemaps } from "../../map/basemaps.js";
import * as maps from "../../map/map.js";
import { say } from "../../shell/say.js";

const lit = new maps.Style({
  stroke: new maps.Stroke({ color: "#6a3d7c", width: 4 }),
  fill: new maps.Fill({ color: "rgba(106,61,124,0.22)" }),
  image: new maps.CircleStyle({
    radius: 9,
    fill: new maps.Fill({ color: "#6a3d7c" }),
    stroke: new maps.Stroke({ color: "#fbf9f3", width: 2 }),
  }),
  zIndex: 3,
});
const moved = new maps.Style({
  image: new maps.CircleStyle({
    radius: 8,
    fill: new maps.Fill({ color: "#d9a400" }),
    stroke: new maps.Stroke({ color: "#1f2a30", width: 2.5 }),
  }),
  zIndex: 5,
});

const fails = new maps.Style({
  image: new maps.RegularShape({
    points: 4,
    radius: 11,
    fill: new maps.Fill({ color: "rgba(251,249,243,0.55)" }),
    stroke: new maps.Stroke({ color: "#9b2f1f", width: 2.5 }),
  }),
  zIndex: 4,
});

export class ProofMap {
  /** @type {any} */
  state;
  /** @type {any} */
  map;
  #shownFor = "";
  #failing = "";

  /** @param {HTMLElement} box @param {any} state */
  constructor(box, state) {
    this.state = state;
    this.box = box;
    box.setAttribute("role", "group");
    box.setAttribute("aria-label", say("desk.form.proofMap"));
  }

  async start() {
    this.map = maps.makeMap(this.box);
    await withBasemaps(this.map, this.state.project);
    this.around = maps.featureLayer(this.map);
    this.around.setOpacity(0.6);
    this.own = maps.featureLayer(this.map, (id) => id === this.state.proof?.id);
    this.found = new maps.VectorLayer({ source: new maps.VectorSource(), style: lit, zIndex: 6 });
    this.here = new maps.VectorLayer({ source: new maps.VectorSource(), style: moved, zIndex: 9 });
    this.failing = new maps.VectorLayer({ source: new maps.VectorSource(), style: fails, zIndex: 7 });
    this.map.addLayer(this.failing);
    this.map.addLayer(this.found);
    this.map.addLayer(this.here);
    // a click on a feature fills the sheet with it; anywhere else the visit's position goes there
    this.map.on("singleclick", (e) => {
      const hit = this.map.forEachFeatureAtPixel(e.pixel, (f) => f, {
        layerFilter: (l) => l === this.own || l === this.failing,
        hitTolerance: 8,
      });
      if (hit?.get("question")) return this.state.proofAt(hit.getId(), hit.get("question"));
      if (hit && hit.getId() !== this.state.proof?.id) return this.state.proofOf(hit.getId());
      const [lon, lat] = maps.toLonLat(e.coordinate);
      this.state.moveTo(lon, lat);
    });
    this.draw();
  }

  /** Draws what is around the proof feature, and what look-ups found. */
  draw() {
    if (!this.here) return;
    const { proof, proofs, layer, live } = this.state;
    const key = `${proof?.id} ${proofs.seen}`;
    if (key !== this.#shownFor) {
      const first = this.#shownFor.split(" ")[0] !== String(proof?.id);
      this.#shownFor = key;
      this.#fill(
        this.around,
        proofs.lookups.flatMap((l) => proofs.around.get(l.id) ?? []),
      );
      this.#fill(this.own, [...(proofs.around.get(layer.id) ?? []), ...(proof ? [proof] : [])]);
      if (first && proof?.geometry) {
        maps.show(this.map, maps.featureOf(proof.geometry).getGeometry()?.getExtent(), 60);
        if (this.map.getView().getZoom() > 15) this.map.getView().setZoom(15);
      }
    }
    this.#fails();
    const found = live.sources(this.state.openName).flatMap((s) => s.found ?? []);
    const all = found.map((x) => proofs.around.get(x.layer)?.find((f) => f.id === x.feature)).filter((f) => f?.geometry);
    this.#fill(this.found, all);
    const at = live.movedTo;
    this.#fill(this.here, at ? [{ id: "here", geometry: { type: "Point", coordinates: at } }] : []);
  }

  /** Marks the features that fail the rule which is opened, and shows all of them when it is. */
  #fails() {
    const { dry } = this.state;
    const features = dry.shown.filter((f) => f.at).map((f) => ({ ...f, geometry: { type: "Point", coordinates: f.at } }));
    const source = this.failing.getSource();
    this.#fill(this.failing, features);
    if (this.#failing === dry.open) return;
    this.#failing = dry.open;
    if (features.length) maps.show(this.map, source.getExtent(), 60);
  }

  #fill(layer, features) {
    const there = new Map(features.filter((f) => f.geometry).map((f) => [f.id, f]));
    layer.getSource().clear(true);
    layer
      .getSource()
      .addFeatures(
        [...there.values()].map((f) => maps.featureOf(f.geometry, f.id, { caption: f.caption ?? "", question: f.question ?? "" })),
      );
  }
}
