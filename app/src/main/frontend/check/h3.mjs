// Cells of the H3 grid around the demo's island and elsewhere: area in km² on H3's sphere, then the boundary as longitude and latitude pairs.
import { cellArea, cellToBoundary, getRes0Cells, gridDisk, latLngToCell, UNITS } from "h3-js";

const cells = new Set(getRes0Cells());
for (const [lat, lng] of [
  [57.9, -10.2],
  [0, 0],
  [-33, 151],
  [78, 16],
  [10, 179.2],
])
  for (const res of [3, 5, 8, 11]) for (const c of gridDisk(latLngToCell(lat, lng, res), 2)) cells.add(c);
for (const c of cells)
  console.log(
    cellArea(c, UNITS.km2),
    cellToBoundary(c)
      .map(([lat, lng]) => `${lng} ${lat}`)
      .join(" "),
  );
