// The tools of drawing, one at a time: what each puts on the map, and what it tells when it is done.
import Collection from "ol/Collection.js";
import Draw from "ol/interaction/Draw.js";
import Modify from "ol/interaction/Modify.js";
import Snap from "ol/interaction/Snap.js";
import Translate from "ol/interaction/Translate.js";
import { grip, working } from "./shapes.js";

const TYPE = { point: "Point", line: "LineString", polygon: "Polygon" };
const SNAPPED = ["reshape", "move", "draw", "part", "hole"];

export class Tools {
  /** What is drawn with just now. @type {Draw | null} */
  draw = null;
  /** Whether a shape is begun and not ended. */
  sketching = false;
  #there = [];

  /**
   * @param {{map: any, kind: string, work: any, features: any, ofMap: (geometry: any) => any, measure: (geometry: any) => void,
   *   changed: (tool: string, geometry: any) => void, finished: (tool: string, geometry: any) => void}} how
   */
  constructor(how) {
    this.how = how;
  }

  #add(tool) {
    this.how.map.addInteraction(tool);
    this.#there.push(tool);
    return tool;
  }

  /** Takes a tool into hand. @param {string} next @param {any} chosen the feature on the map that it works on @param {boolean} snapping */
  use(next, chosen, snapping) {
    const { map, work, features } = this.how;
    for (const t of this.#there.splice(0)) map.removeInteraction(t);
    this.draw = null;
    this.sketching = false;
    if (next === "reshape" && chosen) this.#reshape(chosen);
    if (next === "move" && chosen) this.#move(chosen);
    if (next === "draw" || next === "part" || next === "hole") this.#drawing(next);
    if (snapping && SNAPPED.includes(next)) for (const source of [features, work]) this.#add(new Snap({ source, pixelTolerance: 12 }));
    map.getTargetElement().style.cursor = next === "choose" ? "" : "crosshair";
  }

  #reshape(chosen) {
    const { ofMap, measure, changed } = this.how;
    const deleteCondition = (e) => e.type === "singleclick" && e.originalEvent.altKey;
    const tool = this.#add(new Modify({ features: new Collection([chosen]), pixelTolerance: 12, deleteCondition, style: grip }));
    tool.on("modifyend", (e) => changed("reshape", ofMap(e.features.item(0).getGeometry())));
    chosen.getGeometry().on("change", (e) => measure(ofMap(e.target)));
  }

  #move(chosen) {
    const tool = this.#add(new Translate({ features: new Collection([chosen]), hitTolerance: 8 }));
    tool.on("translateend", (e) => this.how.changed("move", this.how.ofMap(e.features.item(0).getGeometry())));
  }

  #drawing(next) {
    const { kind, ofMap, measure, finished } = this.how;
    const type = next === "hole" ? "Polygon" : TYPE[kind];
    const draw = (this.draw = this.#add(new Draw({ type, stopClick: true, snapTolerance: 10, style: working.slice(0, 2) })));
    draw.on("drawstart", (e) => {
      this.sketching = true;
      e.feature.getGeometry().on("change", (c) => measure(ofMap(c.target)));
    });
    // with a body: a listener that gives false back stops the event
    draw.on(["drawend", "drawabort"], () => {
      this.sketching = false;
    });
    draw.on("drawend", (e) => finished(next, ofMap(e.feature.getGeometry())));
  }
}
