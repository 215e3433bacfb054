package org.whinridge.app.daybook;

import static org.assertj.core.api.Assertions.assertThat;

import com.eclipsesource.json.Json;
import java.time.Instant;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.UUID;
import org.junit.jupiter.api.Test;
import org.whinridge.app.layer.Layer;
import org.whinridge.core.layer.Feature;
import org.whinridge.core.layer.Field;
import org.whinridge.core.layer.FieldType;
import org.whinridge.core.layer.Schema;
import org.whinridge.core.merge.Merge;
import org.whinridge.core.place.GeometryKind;
import org.whinridge.core.said.Said;
import org.whinridge.core.value.Value;

/** What a visit's document says of its lists, as the merge takes it. */
class VisitMergeTest {
  private static final Schema SCHEMA =
      new Schema(
          GeometryKind.TABLE,
          List.of(Field.of("causes", "Causes", FieldType.CODES)),
          "",
          List.of());
  private static final Layer LAYER =
      new Layer(
          UUID.randomUUID(),
          UUID.randomUUID(),
          "Gates",
          SCHEMA,
          8,
          1,
          1,
          Optional.empty(),
          Said.text(""),
          Instant.EPOCH,
          "",
          Instant.EPOCH,
          "",
          List.of(),
          "",
          "",
          0);

  private static Value list(String... codes) {
    return Value.many(java.util.Arrays.stream(codes).map(Value::text).toList());
  }

  private static Merge.Result merged(String ranked) {
    Feature f = new Feature("f", Optional.empty(), Map.of("causes", list("silt", "rust")), 1);
    String doc =
        "{\"base\":{\"version\":1,\"values\":{\"causes\":[\"silt\",\"rust\"]}},"
            + "\"set\":{\"causes\":[\"rust\",\"silt\"]}"
            + ranked
            + "}";
    return VisitMerge.of(SentVisit.read(Json.parse(doc).asObject(), doc), LAYER, f, Optional.of(f))
        .result();
  }

  @Test
  void anotherOrderOfARankingIsWrittenAndOfManyCodesIsNoChange() {
    assertThat(merged(",\"ranked\":[\"causes\"]").writes())
        .containsEntry("causes", list("rust", "silt"));
    assertThat(merged("").fields()).isEmpty();
    assertThat(merged(",\"ranked\":7").fields()).as("what can't be read says nothing").isEmpty();
  }
}
