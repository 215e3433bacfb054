package org.whinridge.core.place;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.Random;
import org.junit.jupiter.api.Test;

class MercatorTest {
  /** Source: proj4j for EPSG:3857, through {@link CoordinateSystem}. */
  @Test
  void placesAreThoseOfTheProjectionLibrary() {
    CoordinateSystem web =
        CoordinateSystem.of(
                "EPSG:3857",
                "+proj=merc +a=6378137 +b=6378137 +lat_ts=0 +lon_0=0 +x_0=0 +y_0=0 +k=1 +units=m +nadgrids=@null +no_defs")
            .orElseThrow();
    Random r = new Random(4);
    for (int i = 0; i < 500; i++) {
      double lon = r.nextDouble() * 360 - 180;
      double lat = r.nextDouble() * 160 - 80;
      var p = web.project(new org.locationtech.jts.geom.Coordinate(lon, lat)).orElseThrow();
      assertThat((Mercator.x(lon) - 0.5) * Mercator.WORLD_M).isCloseTo(p.x, within(0.001));
      assertThat((0.5 - Mercator.y(lat)) * Mercator.WORLD_M).isCloseTo(p.y, within(0.001));
      assertThat(Mercator.lat(Mercator.y(lat))).isCloseTo(lat, within(1e-9));
    }
    assertThat(Mercator.y(90)).isEqualTo(Mercator.y(86)).isZero();
  }

  @Test
  void theQuickWayIsRightNearby() {
    Random r = new Random(5);
    for (int i = 0; i < 20_000; i++) {
      double around = r.nextDouble() * 180 - 90;
      double lat =
          Math.max(-90, Math.min(90, around + (r.nextDouble() - 0.5) * (i % 10 == 0 ? 40 : 0.5)));
      assertThat(new Mercator.Near(around).y(lat))
          .as("%s near %s", lat, around)
          .isCloseTo(Mercator.y(lat), within(3e-9));
    }
  }
}
