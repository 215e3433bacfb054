package org.whinridge.app.layer;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatExceptionOfType;
import static org.mockito.ArgumentMatchers.any;
import static org.mockito.Mockito.doAnswer;
import static org.mockito.Mockito.mock;
import static org.mockito.Mockito.when;

import java.time.Instant;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.UUID;
import java.util.function.Consumer;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.whinridge.app.shell.Refusal;
import org.whinridge.core.layer.Feature;
import org.whinridge.core.layer.Field;
import org.whinridge.core.layer.FieldType;
import org.whinridge.core.layer.GeometryKind;
import org.whinridge.core.layer.Schema;
import org.whinridge.core.value.Value;

/** Read models are built once, follow edits, and stay within their memory together. */
class ReadModelsTest {
  private static final Schema SCHEMA =
      new Schema(GeometryKind.TABLE, List.of(Field.of("n", "N", FieldType.WHOLE)), "", List.of());
  private static final double BYTES = Runtime.getRuntime().maxMemory();
  private final Layers layers = mock(Layers.class);
  private int built;

  private static Feature row(UUID id, int n) {
    return new Feature(id.toString(), Optional.empty(), Map.of("n", Value.of(n)), 1);
  }

  private Layer layer(UUID id, long revision, int count) {
    Layer l =
        new Layer(
            id,
            UUID.randomUUID(),
            "L",
            SCHEMA,
            8,
            revision,
            count,
            Optional.empty(),
            "",
            Instant.EPOCH,
            "",
            Instant.EPOCH,
            "",
            List.of(),
            "EPSG:4326",
            "",
            0);
    when(layers.byId(id)).thenReturn(l);
    return l;
  }

  @BeforeEach
  void features() {
    doAnswer(
            call -> {
              built++;
              Layer l = call.getArgument(0);
              Consumer<Feature> use = call.getArgument(1);
              for (int i = 0; i < l.count(); i++)
                use.accept(row(new UUID(l.id().getMostSignificantBits(), i), i));
              return null;
            })
        .when(layers)
        .each(any(), any());
  }

  @Test
  void aModelIsBuiltOnceAndPatchedAfterAnEditOfOneFeature() {
    ReadModels models = new ReadModels(layers, 0.1);
    UUID id = UUID.randomUUID();
    Layer l = layer(id, 1, 10);
    assertThat(models.<Integer>read(l, c -> c.count())).isEqualTo(10);
    models.read(l, c -> c.count());
    assertThat(built).isEqualTo(1);
    models.changed(LayerChanged.one(id, 2, row(new UUID(id.getMostSignificantBits(), 3), 77)));
    Layer newer = layer(id, 2, 10);
    assertThat(models.<Value>read(newer, c -> c.column("n").orElseThrow().value(3)))
        .isEqualTo(Value.of(77));
    assertThat(built).as("patched, not built anew").isEqualTo(1);
    models.changed(LayerChanged.anything(id, 3));
    models.read(layer(id, 3, 10), c -> c.count());
    assertThat(built).as("after an act on many it is built anew").isEqualTo(2);
  }

  @Test
  void anActOnAFewIsTakenInWithoutReadingTheLayerAgain() {
    ReadModels models = new ReadModels(layers, 0.1);
    UUID id = UUID.randomUUID();
    models.read(layer(id, 1, 10), c -> c.count());
    String gone = new UUID(id.getMostSignificantBits(), 4).toString();
    models.changed(
        new LayerChanged(
            id,
            2,
            Optional.of(
                new LayerChanged.Few(
                    List.of(row(new UUID(id.getMostSignificantBits(), 50), 50)), List.of(gone)))));
    assertThat(models.<Boolean>read(layer(id, 2, 10), c -> c.has(10) && !c.has(4))).isTrue();
    assertThat(built).isEqualTo(1);
  }

  @Test
  void togetherTheyTakeNoMoreThanTheirShareAndTheOldestGoesFirst() {
    ReadModels models = new ReadModels(layers, 200_000 / BYTES);
    Layer a = layer(UUID.randomUUID(), 1, 1_200);
    Layer b = layer(UUID.randomUUID(), 1, 1_200);
    models.read(a, c -> c.count());
    models.read(b, c -> c.count());
    assertThat(models.bytes()).isLessThan(200_000);
    models.read(b, c -> c.count());
    assertThat(built).isEqualTo(2);
    models.read(a, c -> c.count());
    assertThat(built).as("the first one had gone").isEqualTo(3);
  }

  @Test
  void aLayerThatCannotFitIsRefusedInWords() {
    ReadModels models = new ReadModels(layers, 200_000 / BYTES);
    Layer huge = layer(UUID.randomUUID(), 1, 5_000_000);
    assertThatExceptionOfType(Refusal.class)
        .isThrownBy(() -> models.read(huge, c -> c.count()))
        .withMessageContaining("5000000 features");
    assertThat(built).isZero();
  }
}
