package org.whinridge.demo;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import java.util.stream.Collectors;
import org.junit.jupiter.api.Test;
import org.locationtech.jts.geom.Geometry;
import org.whinridge.core.layer.Feature;
import org.whinridge.core.place.Geodesy;
import org.whinridge.core.value.Value;

class OstreyTest {
  private final Ostrey isle = new Ostrey();

  @Test
  void theSameSeedGivesTheSameIsland() {
    Ostrey other = new Ostrey();
    assertThat(other.basemap()).isEqualTo(isle.basemap());
    assertThat(Ostrey.file(Ostrey.structuresSchema(), other.structures()))
        .isEqualTo(Ostrey.file(Ostrey.structuresSchema(), isle.structures()));
    assertThat(other.beats()).isEqualTo(isle.beats());
  }

  @Test
  void theStructuresHaveTheirFlaws() {
    List<Feature> all = isle.structures();
    assertThat(all).hasSize(240).extracting(Feature::id).doesNotHaveDuplicates();
    assertThat(all.stream().map(f -> f.value("tag")).collect(Collectors.toSet()))
        .as("three duplicate tags")
        .hasSize(237);
    assertThat(all)
        .extracting(f -> f.value("material"))
        .contains(Value.text("Brick"), Value.text("brick "), Value.text("Brcik"));
    assertThat(all).extracting(f -> f.value("last_inspected")).contains(Value.text("2025-02-30"));
    assertThat(all)
        .allSatisfy(f -> assertThat(f.value("invert_level_m")).isInstanceOf(Value.Text.class));
    assertThat(all).anySatisfy(f -> assertThat(f.value("condition")).isEqualTo(Value.EMPTY));
  }

  @Test
  void everyStructureLiesInExactlyOneBeatAndTheBeatsCoverTheIsland() {
    List<Feature> beats = isle.beats();
    assertThat(beats).hasSize(8);
    assertThat(isle.structures())
        .allSatisfy(
            s ->
                assertThat(
                        beats.stream().filter(b -> b.geometry().get().covers(s.geometry().get())))
                    .hasSizeBetween(1, 1));
    Geometry land = Ground.degrees(new Ground(Ostrey.SEED).land);
    double covered = beats.stream().mapToDouble(b -> Geodesy.areaM2(b.geometry().get())).sum();
    assertThat(covered / Geodesy.areaM2(land)).isBetween(0.9999, 1.0001);
    assertThat(Geodesy.areaM2(land) / 1e6).as("square kilometres").isBetween(70.0, 130.0);
  }

  @Test
  void theOtherLayersHaveTheirCountsKindsAndFlaws() {
    assertThat(isle.lines())
        .hasSize(85)
        .allSatisfy(f -> assertThat(Geodesy.lengthM(f.geometry().get())).isGreaterThan(50));
    assertThat(isle.posts()).hasSize(160);
    assertThat(isle.soils()).hasSizeBetween(285, 315);
    assertThat(isle.washlands()).hasSize(32);
    assertThat(isle.washlands().stream().filter(f -> !f.geometry().get().isValid()))
        .as("one polygon crosses itself")
        .hasSize(1);
    assertThat(isle.lines())
        .extracting(f -> f.value("lining"))
        .contains(Value.text("Turf"), Value.text("turf"), Value.text("Stone piching"));
    for (List<Feature> layer : List.of(isle.lines(), isle.posts(), isle.soils(), isle.washlands()))
      assertThat(layer).extracting(Feature::id).doesNotHaveDuplicates();
    assertThat(isle.lines())
        .allSatisfy(
            f ->
                Ostrey.linesSchema()
                    .fields()
                    .forEach(x -> assertThat(x.holds(f.value(x.name()))).as(x.name()).isTrue()));
    assertThat(isle.washlands())
        .allSatisfy(
            f ->
                Ostrey.washlandsSchema()
                    .fields()
                    .forEach(x -> assertThat(x.holds(f.value(x.name()))).as(x.name()).isTrue()));
    assertThat(new Ostrey().washlands()).isEqualTo(isle.washlands());
  }
}
