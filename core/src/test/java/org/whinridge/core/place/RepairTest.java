package org.whinridge.core.place;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.locationtech.jts.geom.Geometry;
import org.locationtech.jts.io.WKTReader;

class RepairTest {
  private static Geometry wkt(String s) throws Exception {
    return new WKTReader(GeometryJson.WGS84).read(s);
  }

  /** Areas worked out by hand. */
  @ParameterizedTest
  @CsvSource(
      delimiter = '|',
      value = {
        // sound: nothing happens
        "POLYGON ((0 0, 10 0, 10 10, 0 10, 0 0))|100|100|100",
        // an 8: its corners state nothing, both ways make its two halves
        "POLYGON ((0 0, 10 10, 10 0, 0 10, 0 0))|0|50|50",
        // a shell that is its own hole: structure leaves nothing, linework nothing either
        "POLYGON ((0 0, 10 0, 10 10, 0 10, 0 0), (0 0, 10 0, 10 10, 0 10, 0 0))|100|0|0",
        // the same beside an island: the mainland would go, and only the area tells
        "MULTIPOLYGON (((0 0, 10 0, 10 10, 0 10, 0 0), (0 0, 10 0, 10 10, 0 10, 0 0)), ((20 0, 21 0, 21 1, 20 1, 20 0)))|101|1|1",
        // two parts that overlap: one area, or a gap where they overlap
        "MULTIPOLYGON (((0 0, 10 0, 10 10, 0 10, 0 0)), ((5 0, 15 0, 15 10, 5 10, 5 0)))|200|150|100",
        // a spike out and back
        "POLYGON ((0 0, 10 0, 10 10, 15 10, 10 10, 0 10, 0 0))|100|100|100",
        // a hole that sticks out
        "POLYGON ((0 0, 10 0, 10 10, 0 10, 0 0), (8 2, 12 2, 12 4, 8 4, 8 2))|92|96|100"
      })
  void eachWayTellsWhatItDoesToTheArea(String g, double before, double structure, double linework)
      throws Exception {
    Repair.Result s = Repair.STRUCTURE.of(wkt(g));
    Repair.Result l = Repair.LINEWORK.of(wkt(g));
    assertThat(s.after().isValid()).isTrue();
    assertThat(l.after().isValid()).isTrue();
    assertThat(s.area()).isEqualTo(structure, within(1e-9));
    assertThat(l.area()).isEqualTo(linework, within(1e-9));
    assertThat(s.before()).isEqualTo(before, within(1e-9));
    assertThat(l.before()).isEqualTo(before, within(1e-9));
  }

  @Test
  void aLittleLoopIsLittleAndALostShellIsNot() throws Exception {
    Repair.Result loop =
        Repair.STRUCTURE.of(
            wkt("POLYGON ((0 0, 100 0, 100 100, 50 100, 50.5 101, 50.5 99, 50 100, 0 100, 0 0))"));
    assertThat(loop.changed()).isGreaterThan(0).isLessThan(Repair.LITTLE);
    assertThat(loop.isLittle()).isTrue();
    Repair.Result lost =
        Repair.STRUCTURE.of(
            wkt("POLYGON ((0 0, 10 0, 10 10, 0 10, 0 0), (0 0, 10 0, 10 10, 0 10, 0 0))"));
    assertThat(lost.isLittle()).isFalse();
  }

  @Test
  void longitudesBeyond180AreWrappedAndShapesCut() throws Exception {
    assertThat(DateLine.wrapped(wkt("POINT (190 10)"))).isEqualTo(wkt("POINT (-170 10)"));
    assertThat(DateLine.wrapped(wkt("POINT (-190 10)"))).isEqualTo(wkt("POINT (170 10)"));
    assertThat(DateLine.wrapped(wkt("POINT (360 10)"))).isEqualTo(wkt("POINT (0 10)"));
    assertThat(DateLine.wrapped(wkt("MULTIPOINT ((170 1), (190 1))")).norm())
        .isEqualTo(wkt("MULTIPOINT ((-170 1), (170 1))").norm());
    assertThat(DateLine.wrapped(wkt("LINESTRING (170 0, 190 10)")).norm())
        .isEqualTo(wkt("MULTILINESTRING ((170 0, 180 5), (-180 5, -170 10))").norm());
    Geometry cut = DateLine.wrapped(wkt("POLYGON ((170 0, 190 0, 190 10, 170 10, 170 0))"));
    assertThat(cut.getArea()).isEqualTo(200, within(1e-9));
    assertThat(cut.getEnvelopeInternal().getMinX()).isEqualTo(-180);
    assertThat(cut.getEnvelopeInternal().getMaxX()).isEqualTo(180);
    // a shape up to the line stays in one part
    assertThat(DateLine.wrapped(wkt("POLYGON ((180 0, 190 0, 190 10, 180 10, 180 0))")).norm())
        .isEqualTo(wkt("POLYGON ((-180 0, -170 0, -170 10, -180 10, -180 0))").norm());
    // metres are no longitudes
    Geometry far = wkt("POINT (566000 10)");
    assertThat(DateLine.wrapped(far)).isSameAs(far);
  }
}
