// A visit's places on a map: on the layer, from the field, and where the person stood.
import { withBasemaps } from "../../map/basemaps.js";
import * as maps from "../../map/map.js";

const disc = (fill, width) =>
  new maps.CircleStyle({ radius: 8, fill: new maps.Fill({ color: fill }), stroke: new maps.Stroke({ color: "#1f2a30", width }) });
const STYLES = {
  layer: new maps.Style({ image: disc("#fff", 2.5), stroke: new maps.Stroke({ color: "#1f2a30", width: 3 }) }),
  field: new maps.Style({ image: disc("#6a3d7c", 2), stroke: new maps.Stroke({ color: "#6a3d7c", width: 3 }) }),
};

/** @param {HTMLElement} box */
export async function visitPlaces(box) {
  const { project = "", places = "{}" } = box.dataset;
  const map = maps.makeMap(/** @type {HTMLElement} */ (box.querySelector(".map")));
  await withBasemaps(map, project);
  const p = JSON.parse(places);
  const source = new maps.VectorSource();
  for (const key of ["layer", "field"]) {
    if (!p[key]) continue;
    const f = maps.featureOf(p[key]);
    f.setStyle(STYLES[key]);
    source.addFeature(f);
  }
  map.addLayer(new maps.VectorLayer({ source }));
  if (p.person) {
    const [lon, lat] = p.person.coordinates;
    maps.ownPosition(map)({ lon, lat });
  }
  maps.show(map, source.getExtent(), 60);
}
