// A layer on a map: its features one by one while they are few, as tiles above that; drawn by its look.
import Feature from "ol/Feature.js";
import MVT from "ol/format/MVT.js";
import VectorLayer from "ol/layer/Vector.js";
import VectorTileLayer from "ol/layer/VectorTile.js";
import { toLonLat, transformExtent } from "ol/proj.js";
import VectorSource from "ol/source/Vector.js";
import VectorTileSource from "ol/source/VectorTile.js";
import { createXYZ } from "ol/tilegrid.js";
import { getJson } from "../shell/server.js";
import { denominator, Painter } from "./look.js";
import { format } from "./map.js";

/** A feature of the map out of one of the server's, with what draws it. */
export function onMap(f) {
  const out = new Feature(f.geometry ? format.readGeometry(f.geometry) : undefined);
  out.setId(f.id);
  const d = f.drawn ?? {};
  out.setProperties({ c: d.c ?? 0, l: d.l ?? "", caption: f.caption ?? "", version: f.version }, true);
  (d.t ?? []).forEach((t, i) => out.set("t" + i, t, true));
  (d.s ?? []).forEach((s, i) => out.set("s" + i, s, true));
  return out;
}

export class LayerOnMap {
  /** @type {any} */
  failure;
  /** @type {any} */
  filter;
  /** @type {any} */
  map;
  /** @type {any} */
  isChosen;
  /** @type {string} */
  base;
  /** @type {any} */
  outside;
  /** @type {(anew?: boolean) => void} */
  changed;
  /**
   * `base` is the layer's address below /api; `changed(state)` is told whenever other features are there.
   * @param {any} map
   * @param {string} base
   * @param {{filter?: string, outside?: boolean, isChosen?: (id: string) => boolean, opacity?: number, zIndex?: number, changed?: (state: any) => void}} [how]
   */
  constructor(map, base, how = {}) {
    const { filter = "", outside = false, isChosen = () => false, opacity = 1, zIndex = 10, changed = () => {} } = how;
    Object.assign(this, {
      map,
      base,
      filter,
      outside,
      isChosen,
      changed,
      look: "",
      state: { count: 0, whole: true, drawn: true, features: [] },
    });
    this.source = new VectorSource();
    this.vectors = new VectorLayer({ source: this.source, declutter: true, opacity, zIndex });
    this.tiles = new VectorTileLayer({ declutter: false, opacity, zIndex, visible: false, preload: 0 });
    map.addLayer(this.tiles);
    map.addLayer(this.vectors);
    this.onMove = () => {
      if (!this.state.whole) this.load().catch((e) => (this.failure ?? console.error)(e));
    };
    map.on("moveend", this.onMove);
  }

  paint(plan) {
    this.plan = plan;
    this.painter = new Painter(
      plan,
      () => denominator(this.map),
      (f) => this.isChosen(f.getId()),
    );
    this.vectors.setStyle(this.painter.style);
    this.tiles.setStyle(this.painter.style);
  }

  /** Fetches the saved look and the features. */
  async start() {
    const [plan] = await Promise.all([getJson(`${this.base}/look/plan`), this.load()]);
    this.paint(plan);
  }

  /** Draws by a look that is being tried. */
  async tryLook(key, plan) {
    this.look = key;
    await this.load(true);
    this.paint(plan);
  }

  query(more = {}) {
    const q = new URLSearchParams(more);
    if (this.filter) q.set("filter", this.filter);
    if (this.outside) q.set("outside", "true");
    if (this.look) q.set("look", this.look);
    return q.toString();
  }

  async load(anew = false) {
    this.going?.abort();
    const going = (this.going = new AbortController());
    const more = {};
    if (this.map.getSize() && this.map.getView().getCenter()) {
      const e = transformExtent(this.map.getView().calculateExtent(), "EPSG:3857", "EPSG:4326");
      more.box = [Math.max(-180, e[0]), Math.max(-90, e[1]), Math.min(180, e[2]), Math.min(90, e[3])].map((d) => d.toFixed(7)).join(",");
    }
    let got;
    try {
      got = await getJson(`${this.base}/features?${this.query(more)}`, { signal: going.signal });
    } catch (e) {
      if (going.signal.aborted) return;
      throw e;
    }
    if (going.signal.aborted) return;
    this.state = got;
    this.source.clear(true);
    if (got.drawn) this.source.addFeatures(got.features.filter((f) => f.geometry).map(onMap));
    this.vectors.setVisible(got.drawn);
    const version = `${got.version}|${this.query()}`;
    if (!got.whole && (anew || this.version !== version)) {
      this.version = version;
      const q = this.query({ v: got.version });
      this.tiles.setSource(
        new VectorTileSource({
          format: new MVT({ layers: ["features"] }),
          tileGrid: createXYZ({ tileSize: 512, maxZoom: 20 }),
          url: `${this.base}/tiles/{z}/{x}/{y}?${q}`,
          transition: 0,
        }),
      );
    }
    this.tiles.setVisible(!got.drawn);
    this.changed(got);
  }

  redraw() {
    this.vectors.changed();
    this.tiles.changed();
  }

  /** The id of the feature under a pixel; "" for none. Tiles hold no ids, so the server is asked. */
  async at(pixel) {
    if (this.state.drawn)
      return this.map.forEachFeatureAtPixel(pixel, (f) => f, { layerFilter: (l) => l === this.vectors, hitTolerance: 8 })?.getId() ?? "";
    const [lon, lat] = toLonLat(this.map.getCoordinateFromPixel(pixel));
    const within = this.map.getView().getResolution() * 10 * Math.cos((lat * Math.PI) / 180);
    const q = new URLSearchParams({ lon: String(lon), lat: String(lat), within: String(within) });
    if (this.filter) q.set("filter", this.filter);
    return (await getJson(`${this.base}/at?${q}`)).id;
  }

  /** Shows by the pointer whether a feature is under it; asked only when the pointer rests, since asking is slow. */
  pointAt() {
    let rest;
    this.map.on("pointermove", (e) => {
      clearTimeout(rest);
      if (e.dragging || !this.state.drawn) return;
      rest = setTimeout(() => {
        const hit = this.map.hasFeatureAtPixel(e.pixel, { layerFilter: (l) => l === this.vectors, hitTolerance: 8 });
        this.map.getTargetElement().style.cursor = hit ? "pointer" : "";
      }, 90);
    });
  }

  extent() {
    return this.source.getFeatures().length > 0 ? this.source.getExtent() : undefined;
  }

  /** @param {{opacity?: number, zIndex?: number, visible?: boolean}} how */
  place({ opacity, zIndex, visible }) {
    for (const l of [this.vectors, this.tiles]) {
      if (opacity !== undefined) l.setOpacity(opacity);
      if (zIndex !== undefined) l.setZIndex(zIndex);
    }
    if (visible !== undefined) {
      this.vectors.setVisible(visible && this.state.drawn);
      this.tiles.setVisible(visible && !this.state.drawn);
    }
  }
}
