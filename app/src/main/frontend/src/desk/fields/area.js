// The area in which a layer expects its features, drawn on a small map.
import Draw from "ol/interaction/Draw.js";
import * as maps from "../../map/map.js";

const edge = () => new maps.Stroke({ color: "#6a3d7c", width: 2.5 });
const inside = () => new maps.Fill({ color: "rgba(106,61,124,0.12)" });

/** @param {HTMLElement} target @param {any} basemap @param {(area: any) => void} put hears the area as GeoJSON, null when it is taken away */
export function areaMap(target, basemap, put) {
  const map = maps.makeMap(target, basemap);
  const source = new maps.VectorSource();
  map.addLayer(new maps.VectorLayer({ source, style: new maps.Style({ stroke: edge(), fill: inside() }) }));
  const draw = new Draw({ source, type: "Polygon" });
  draw.on("drawend", (e) => {
    const written = maps.format.writeGeometry(/** @type {any} */ (e.feature.getGeometry()), { decimals: 6 });
    map.removeInteraction(draw);
    put(JSON.parse(written));
  });
  map.addInteraction(draw);
  if (basemap.features?.length) maps.show(map, /** @type {any} */ (map.getLayers().item(0)).getSource().getExtent(), 10);
  return {
    clear: () => {
      source.clear();
      map.addInteraction(draw);
      put(null);
    },
  };
}
