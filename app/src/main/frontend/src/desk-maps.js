// The desk's maps: a layer with its card, planning a round, the places of a visit.
import { request } from "./api.js";
import { withBasemaps } from "./basemaps.js";
import { LayerOnMap } from "./layer-on-map.js";
import { entrySaid, url } from "./look.js";
import * as maps from "./map.js";
import DragBox from "ol/interaction/DragBox.js";

const json = async (path) => (await request(path)).json();

async function begin(component, project) {
  const map = maps.makeMap(component.$refs.map);
  await withBasemaps(map, project);
  return map;
}

/** A layer on the map; a click, or a line of the list, opens the card of a feature beside it. */
export function layerPage() {
  return {
    card: null, beside: { pictures: [], visits: [] }, slow: false, many: false, inView: false, all: [], entries: [], found: "", failure: "", list: [], longer: "", matching: "", rule: "", applied: "", ruleProblem: "", ticked: [],
    async init() {
      const { project, layer } = this.$el.dataset;
      this.base = `/api/p/${project}/layers/${layer}`;
      let chosen = location.hash.slice(1);
      try {
        const map = await begin(this, project);
        maps.showText(map, this.$el.dataset.extent);
        const drawn = (this.drawn = new LayerOnMap(map, this.base, { isChosen: (id) => id === chosen, changed: (state) => this.has(state) }));
        drawn.failure = (e) => (this.failure = e.message);
        this.load = async ({ filter = "", outside = false }) => {
          const before = [drawn.filter, drawn.outside];
          Object.assign(drawn, { filter, outside });
          try {
            await drawn.load(true);
          } catch (e) {
            [drawn.filter, drawn.outside] = before;
            throw e;
          }
          if (drawn.extent() && (filter || outside)) maps.show(map, drawn.extent());
        };
        this.rule = new URLSearchParams(location.search).get("filter") ?? "";
        if (this.rule) await this.applyRule();
        const slow = setTimeout(() => (this.slow = true), 1500);
        await drawn.start().finally(() => {
          clearTimeout(slow);
          this.slow = false;
        });
        this.legend(drawn.plan);
        this.pick = async (id) => {
          chosen = id;
          drawn.redraw();
          history.replaceState(null, "", "#" + id);
          const [card, beside] = await Promise.all([json(`${this.base}/features/${id}`), json(`${this.base}/features/${id}/visits`)]);
          if (chosen !== id) return;
          this.card = card;
          this.beside = beside;
          taken.show(beside.pictures);
        };
        const taken = maps.picturePlaces(map);
        this.none = () => taken.show([]);
        map.on("singleclick", async (e) => {
          try {
            const id = await drawn.at(e.pixel);
            if (id) await this.pick(id);
          } catch (error) {
            this.failure = error.message;
          }
        });
        drawn.pointAt();
        if (chosen) await this.pick(chosen);
        this.$el.dataset.ready = "true";
      } catch (e) {
        this.failure = e.message;
      }
    },
    has(state) {
      const n = new Intl.NumberFormat("en").format(state.count);
      this.matching = `${n} ${state.count === 1 ? "feature" : "features"}`;
      this.many = !state.drawn;
      this.inView = !state.whole && state.drawn;
      this.all = state.features.map((f) => ({ id: f.id, caption: f.caption || "(no caption)" }));
      this.filter();
    },
    legend(plan) {
      const last = plan.entries.length - 1;
      this.entries = plan.entries.map((e, key) => ({ key, label: entrySaid(plan, key, "All features"), symbol: url(e.symbol), empty: e.draws.length === 0 && key === last })).filter((e) => !e.empty);
    },
    filter() {
      const wanted = this.found.trim().toLowerCase();
      const hits = this.all.filter((f) => f.caption.toLowerCase().includes(wanted));
      this.list = hits.slice(0, 200).map((f) => ({ ...f, on: this.ticked.includes(f.id) }));
      this.longer = hits.length > 200 ? `The first 200 of ${hits.length}.` : hits.length === 0 && !this.many && this.all.length > 0 ? "No feature is found so." : "";
    },
    async applyRule(event) {
      event?.preventDefault();
      this.ruleProblem = "";
      try {
        await this.load({ filter: this.rule.trim() });
        this.applied = this.rule.trim();
        history.replaceState(null, "", location.pathname + (this.applied ? `?filter=${encodeURIComponent(this.applied)}` : "") + location.hash);
      } catch (e) {
        this.ruleProblem = e.message;
      }
    },
    async clearRule() {
      this.rule = "";
      await this.applyRule();
    },
    async showOutside() {
      await this.load({ outside: true });
    },
    tick(event) {
      const id = event.currentTarget.value;
      this.ticked = event.currentTarget.checked ? [...this.ticked, id] : this.ticked.filter((x) => x !== id);
    },
    get hasTicked() { return this.ticked.length > 0; },
    get tickedSaid() { return `Take the ${this.ticked.length} ticked out`; },
    get tickedLink() { return `${location.pathname.replace(/\/layers\/.*/, "")}/outputs?layer=${document.getElementById("layer-page").dataset.layer}&only=${this.ticked.join(",")}`; },
    get hasRule() { return this.applied !== ""; },
    get outLink() { return `${location.pathname.replace(/\/layers\/.*/, "")}/outputs?layer=${document.getElementById("layer-page").dataset.layer}&filter=${encodeURIComponent(this.applied)}`; },
    open(event) {
      this.pick(event.currentTarget.dataset.id);
    },
    close() {
      this.card = null;
      this.none();
      history.replaceState(null, "", location.pathname + location.search);
    },
    get hasCard() { return this.card !== null; },
    get noCard() { return this.card === null; },
    get caption() { return this.card?.caption ?? ""; },
    get pictures() {
      const base = this.base.replace(/\/layers\/.*/, "/photos/");
      return this.beside.pictures.map((p) => ({ id: p.id, small: base + p.id, whole: `${base}${p.id}?whole=true`, alt: `picture of ${this.caption}`, said: [p.at ? new Date(p.at).toLocaleString([], { dateStyle: "medium", timeStyle: "short" }) : "no time told", p.facts].join(" · ") }));
    },
    get visits() {
      return this.beside.visits.map((v) => ({ ...v, when: new Date(v.at).toLocaleDateString([], { dateStyle: "medium" }) + (v.future ? " (in the future)" : ""), link: `${location.pathname.replace(/\/layers\/.*/, "")}/hand-ins/${v.id}` }));
    },
    get values() { return this.card?.values ?? []; },
    get history() {
      return (this.card?.history ?? []).map((e, key) => ({ ...e, key, when: new Date(e.at).toLocaleString([], { dateStyle: "medium", timeStyle: "short" }), link: e.visit ? `${location.pathname.replace(/\/layers\/.*/, "")}/hand-ins/${e.visit}` : null, changes: e.fields.map((f) => `${f.label}: ${f.before || "empty"} becomes ${f.after || "empty"}`) }));
    },
    get symbol() { return this.card === null ? "" : `${this.base}/look/symbol/${this.card.id}.svg`; },
  };
}

/** Picks the stops of a round: by rectangle on the map, by a click, or in the list. */
export function roundPlanner() {
  return {
    count: 0, ids: "", found: "", all: [], list: [], many: false, drawing: false, failure: "",
    async init() {
      const { project, layer } = this.$el.dataset;
      const chosen = new Set();
      this.chosen = chosen;
      try {
        const map = await begin(this, project);
        maps.showText(map, this.$el.dataset.extent);
        const drawn = new LayerOnMap(map, `/api/p/${project}/layers/${layer}`, {
          isChosen: (id) => chosen.has(id),
          changed: (state) => {
            this.all = state.features.map((f) => ({ id: f.id, caption: f.caption || "(no caption)" }));
            this.many = !state.drawn;
            this.filter();
          },
        });
        drawn.failure = (e) => (this.failure = e.message);
        await drawn.start();
        const source = drawn.source;
        this.update = () => {
          drawn.redraw();
          this.count = chosen.size;
          this.ids = [...chosen].join(",");
          this.filter();
        };
        const box = new DragBox({ condition: (e) => this.drawing || e.originalEvent.shiftKey });
        box.on("boxend", () => {
          source.forEachFeatureIntersectingExtent(box.getGeometry().getExtent(), (f) => { chosen.add(f.getId()); });
          this.drawing = false;
          this.update();
        });
        map.addInteraction(box);
        map.on("singleclick", async (e) => {
          const id = await drawn.at(e.pixel).catch((error) => (this.failure = error.message) && "");
          if (id) this.toggle(id);
        });
        this.update();
        this.$el.dataset.ready = "true";
      } catch (e) {
        this.failure = e.message;
      }
    },
    toggle(id) {
      if (!this.chosen.delete(id)) this.chosen.add(id);
      this.update();
    },
    tick(event) { this.toggle(event.currentTarget.value); },
    filter() {
      const wanted = this.found.trim().toLowerCase();
      this.list = this.all.filter((f) => f.caption.toLowerCase().includes(wanted)).slice(0, 300).map((f) => ({ ...f, on: this.chosen.has(f.id) }));
    },
    draw() { this.drawing = !this.drawing; },
    clear() {
      this.chosen.clear();
      this.update();
    },
    get none() { return this.count === 0; },
    get said() { return this.count === 1 ? "1 stop" : `${this.count} stops`; },
    get drawLabel() { return this.drawing ? "Now drag over the map" : "Draw a rectangle"; },
    get makeLabel() { return this.count === 0 ? "Choose stops first" : `Make the round with ${this.said}`; },
  };
}

/** A visit's places: on the layer, from the field, and where the person stood. */
export function visitPlaces() {
  return {
    failure: "",
    async init() {
      const { project, places } = this.$el.dataset;
      try {
        const map = await begin(this, project);
        const p = JSON.parse(places);
        const source = new maps.VectorSource();
        const styles = {
          layer: new maps.Style({ image: new maps.CircleStyle({ radius: 8, fill: new maps.Fill({ color: "#fff" }), stroke: new maps.Stroke({ color: "#1f2a30", width: 2.5 }) }), stroke: new maps.Stroke({ color: "#1f2a30", width: 3 }) }),
          field: new maps.Style({ image: new maps.CircleStyle({ radius: 8, fill: new maps.Fill({ color: "#6a3d7c" }), stroke: new maps.Stroke({ color: "#1f2a30", width: 2 }) }), stroke: new maps.Stroke({ color: "#6a3d7c", width: 3 }) }),
        };
        for (const key of ["layer", "field"]) {
          if (!p[key]) continue;
          const f = maps.format.readFeature({ type: "Feature", geometry: p[key], properties: {} });
          f.setStyle(styles[key]);
          source.addFeature(f);
        }
        map.addLayer(new maps.VectorLayer({ source }));
        if (p.person) {
          const [lon, lat] = p.person.coordinates;
          maps.ownPosition(map)({ lon, lat });
        }
        maps.show(map, source.getExtent(), 60);
      } catch (e) {
        this.failure = e.message;
      }
    },
  };
}
