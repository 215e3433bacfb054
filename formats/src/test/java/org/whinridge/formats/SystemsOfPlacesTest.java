package org.whinridge.formats;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.List;
import java.util.Map;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.junit.jupiter.api.Test;
import org.whinridge.core.place.Box;
import org.whinridge.formats.crs.CoordinateSystems;

/** Coordinate systems by a place, by the name of a place, and where they are meant to be used. */
class SystemsOfPlacesTest {
  private static final Pattern BOX =
      Pattern.compile("BBOX\\[([-\\d.]+),([-\\d.]+),([-\\d.]+),([-\\d.]+)]");

  private static List<Integer> at(double lon, double lat) {
    return CoordinateSystems.at(lon, lat, 12).stream().map(CoordinateSystems.Choice::epsg).toList();
  }

  /** The grids by which countries survey: common knowledge of the trade, codes as EPSG has them. */
  @Test
  void utmAndTheNationalGridsAreProposed() {
    assertThat(at(-1.5, 53)).startsWith(32630).contains(27700, 25830);
    assertThat(at(-8, 53.3)).startsWith(32629).contains(2157);
    assertThat(at(5.5, 52)).startsWith(32631).contains(28992);
    assertThat(at(-19, 65)).startsWith(32627).contains(8088);
    assertThat(at(10, 51)).startsWith(32632).contains(25832);
    assertThat(at(14.5, 47.5)).startsWith(32633).contains(31287);
    assertThat(at(20, 52)).startsWith(32634).contains(2180);
    assertThat(at(25, 62)).startsWith(32635).contains(3067);
    assertThat(at(175.5, -38)).startsWith(32760).contains(2193);
    assertThat(at(150.3, -33)).startsWith(32756).contains(7856);
    assertThat(at(-105.5, 39)).startsWith(32613).contains(6427);
    assertThat(at(-1, 7)).startsWith(32630).contains(25000);
    assertThat(at(25, -29)).startsWith(32735).contains(2051);
  }

  @Test
  void noneIsProposedTwiceOldOrOfTheWholeWorld() {
    List<Integer> there = at(-1.5, 53);
    assertThat(there).doesNotHaveDuplicates().hasSizeLessThanOrEqualTo(12);
    assertThat(there).doesNotContain(3857, 3395, 32230);
    assertThat(CoordinateSystems.at(-1.5, 53, 12))
        .allSatisfy(
            c -> {
              assertThat(CoordinateSystems.own(c.epsg())).isPresent();
              assertThat(c.area().orElseThrow().box().holds(-1.5, 53)).isTrue();
            });
    assertThat(at(0, 89.9)).doesNotContain(32631);
    assertThat(at(200, 0)).isEmpty();
  }

  @Test
  void theNameOfAPlaceFindsThemToo() {
    List<CoordinateSystems.Choice> iceland = CoordinateSystems.findOwn("iceland", 50);
    assertThat(iceland.stream().map(CoordinateSystems.Choice::epsg)).contains(8088, 3057);
    List<CoordinateSystems.Choice> grid = CoordinateSystems.findOwn("british national grid", 5);
    assertThat(grid.get(0).epsg()).isEqualTo(27700);
    assertThat(CoordinateSystems.findOwn("nowhere at all", 5)).isEmpty();
  }

  /** Areas as PROJ has them (projinfo), an independent copy of the EPSG dataset. */
  @Test
  void areasOfUseAreThoseOfProj() throws Exception {
    Map<Integer, String> said = new java.util.TreeMap<>();
    for (int code : List.of(27700, 2157, 28992, 2180, 3067, 2193, 7856, 2051, 32629, 32760)) {
      Matcher m = BOX.matcher(Gdal.run("projinfo", "-o", "WKT2:2019", "EPSG:" + code));
      assertThat(m.find()).as("EPSG:" + code).isTrue();
      Box ours = CoordinateSystems.find(String.valueOf(code), 1).get(0).area().orElseThrow().box();
      double[] there = new double[4];
      for (int i = 0; i < there.length; i++) there[i] = Double.parseDouble(m.group(i + 1));
      // editions of the dataset differ by hundredths of a degree
      assertThat(ours.south()).as("south of " + code).isCloseTo(there[0], within(0.5));
      assertThat(ours.west()).as("west of " + code).isCloseTo(there[1], within(0.5));
      assertThat(ours.north()).as("north of " + code).isCloseTo(there[2], within(0.5));
      assertThat(ours.east()).as("east of " + code).isCloseTo(there[3], within(0.5));
      said.put(code, m.group());
    }
    assertThat(said).hasSize(10);
  }
}
