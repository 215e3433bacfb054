package org.whinridge.core.profile;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.Test;
import org.whinridge.core.layer.Field;
import org.whinridge.core.layer.FieldType;
import org.whinridge.core.layer.Schema;
import org.whinridge.core.place.GeometryKind;

class ColumnMatchTest {
  private static final Schema SCHEMA =
      new Schema(
          GeometryKind.POINT,
          List.of(
              Field.of("asset_no", "Asset number", FieldType.TEXT),
              Field.of("invert_level_m", "Invert level", FieldType.DECIMAL),
              Field.of("kind", "Kind", FieldType.TEXT)),
          "asset_no",
          List.of());

  @Test
  void columnsGoByNameByLabelAndByWhatAShapefileLeavesOfAName() {
    assertThat(ColumnMatch.fields(List.of("Asset number", "invert_lev", "KIND", "kind"), SCHEMA))
        .isEqualTo(
            Map.of(
                "Asset number",
                "asset_no",
                "invert_lev",
                "invert_level_m",
                "KIND",
                "kind",
                "kind",
                ""));
  }

  @Test
  void theKeyIsTheTagElseAColumnWhoseValuesAreUnique() {
    Map<String, String> fields = ColumnMatch.fields(List.of("kind", "asset_no"), SCHEMA);
    assertThat(ColumnMatch.key(fields, List.of("kind"), SCHEMA)).isEqualTo("asset_no");
    Map<String, String> noTag = ColumnMatch.fields(List.of("other", "kind"), SCHEMA);
    assertThat(ColumnMatch.key(noTag, List.of("other", "kind"), SCHEMA)).isEqualTo("kind");
    assertThat(ColumnMatch.key(noTag, List.of("other"), SCHEMA)).isEmpty();
  }

  @Test
  void tagAndCaptionsAreKnownByTheirUsualNames() {
    List<Field> fields =
        List.of(
            Field.of("depth", "D", FieldType.TEXT),
            Field.of("name", "N", FieldType.TEXT),
            Field.of("ref", "R", FieldType.TEXT));
    assertThat(ColumnMatch.tag(fields)).isEqualTo("ref");
    assertThat(ColumnMatch.captions(fields)).containsExactly("ref", "name");
    assertThat(ColumnMatch.captions(fields.subList(0, 1))).containsExactly("depth");
    assertThat(ColumnMatch.captions(List.of())).isEmpty();
  }

  @Test
  void whoMadeAVisitIsFoundByTheNameOfItsColumn() {
    assertThat(ColumnMatch.visitor(List.of("tag", "Inspected by", "day")))
        .isEqualTo("Inspected by");
    assertThat(ColumnMatch.visitor(List.of("tag", "owner"))).isEmpty();
  }
}
