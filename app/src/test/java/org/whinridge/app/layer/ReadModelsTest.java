package org.whinridge.app.layer;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatExceptionOfType;
import static org.mockito.ArgumentMatchers.any;
import static org.mockito.Mockito.doAnswer;
import static org.mockito.Mockito.mock;
import static org.mockito.Mockito.when;

import java.lang.ref.WeakReference;
import java.nio.file.Path;
import java.time.Instant;
import java.time.LocalDate;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.UUID;
import java.util.function.Consumer;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.springframework.core.task.support.TaskExecutorAdapter;
import org.springframework.transaction.support.TransactionSynchronizationManager;
import org.whinridge.app.layer.look.LookTiles;
import org.whinridge.app.layer.look.Looks;
import org.whinridge.app.shell.DataFolder;
import org.whinridge.app.shell.Refusal;
import org.whinridge.core.layer.Feature;
import org.whinridge.core.layer.Field;
import org.whinridge.core.layer.FieldType;
import org.whinridge.core.layer.Schema;
import org.whinridge.core.look.Look;
import org.whinridge.core.place.GeometryKind;
import org.whinridge.core.read.Clock;
import org.whinridge.core.read.LayerColumns;
import org.whinridge.core.said.English;
import org.whinridge.core.said.Said;
import org.whinridge.core.value.Value;

/** Read models are built once, follow edits, and stay within their memory together. */
class ReadModelsTest {
  private static final Schema SCHEMA =
      new Schema(GeometryKind.TABLE, List.of(Field.of("n", "N", FieldType.WHOLE)), "", List.of());
  private static final double BYTES = Runtime.getRuntime().maxMemory();
  private final Layers layers = mock(Layers.class);
  private int built;
  private Runnable whileBuilding = () -> {};
  @TempDir Path tmp;
  private ModelFiles files;

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
            Said.text(""),
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
    DataFolder data = mock(DataFolder.class);
    when(data.folder(any()))
        .thenAnswer(
            call ->
                java.nio.file.Files.createDirectories(tmp.resolve(call.<String>getArgument(0))));
    files = new ModelFiles(data);
    doAnswer(
            call -> {
              built++;
              whileBuilding.run();
              Layer l = call.getArgument(0);
              Consumer<Feature> use = call.getArgument(1);
              for (int i = 0; i < l.count(); i++)
                use.accept(row(new UUID(l.id().getMostSignificantBits(), i), i));
              return null;
            })
        .when(layers)
        .each(any(), any());
  }

  private ReadModels models(double share) {
    return new ReadModels(layers, files, new TaskExecutorAdapter(Runnable::run), share);
  }

  @Test
  void aModelIsBuiltOnceAndFollowsAnEditOfOneFeature() {
    ReadModels models = models(0.1);
    UUID id = UUID.randomUUID();
    Layer l = layer(id, 1, 10);
    LayerColumns before = models.of(l);
    assertThat(before.count()).isEqualTo(10);
    assertThat(models.of(l)).isSameAs(before);
    assertThat(built).isEqualTo(1);
    models.changed(
        LayerChanged.one(id, 2, Instant.EPOCH, row(new UUID(id.getMostSignificantBits(), 3), 77)));
    Layer newer = layer(id, 2, 10);
    assertThat(models.of(newer).column("n").orElseThrow().value(3)).isEqualTo(Value.of(77));
    assertThat(before.column("n").orElseThrow().value(3))
        .as("who reads, reads on")
        .isEqualTo(Value.of(3));
    assertThat(built).as("patched, not built anew").isEqualTo(1);
    models.changed(new LayerChanged(id, 3, Instant.EPOCH, Optional.empty()));
    models.of(layer(id, 3, 10));
    assertThat(built).as("after an act on many it is built anew").isEqualTo(2);
  }

  @Test
  void whatTilesAreMadeOfLeavesTheMemoryWithItsModel() throws Exception {
    ReadModels models = models(0.1);
    Looks looks = mock(Looks.class);
    when(looks.by(any(), any())).thenReturn(Look.plain(GeometryKind.TABLE));
    LayerQueries queries = mock(LayerQueries.class);
    when(queries.clock(any())).thenReturn(new Clock(LocalDate.EPOCH, Instant.EPOCH));
    LookTiles tiles = new LookTiles(models, queries, looks);
    UUID id = UUID.randomUUID();
    Layer l = layer(id, 1, 10);
    tiles.tile(l, "", LayerFilter.ALL, 0, 0, 0);
    WeakReference<LayerColumns> model = new WeakReference<>(models.of(l));
    models.changed(new LayerChanged(id, 2, Instant.EPOCH, Optional.empty()));
    for (int i = 0; i < 100 && !model.refersTo(null); i++) {
      System.gc();
      Thread.sleep(20);
    }
    assertThat(model.refersTo(null)).as("nobody holds the model that was left").isTrue();
  }

  @Test
  void anActOnAFewIsTakenInWithoutReadingTheLayerAgain() {
    ReadModels models = models(0.1);
    UUID id = UUID.randomUUID();
    models.of(layer(id, 1, 10));
    String gone = new UUID(id.getMostSignificantBits(), 4).toString();
    models.changed(
        new LayerChanged(
            id,
            2,
            Instant.EPOCH,
            Optional.of(
                new LayerChanged.Few(
                    List.of(row(new UUID(id.getMostSignificantBits(), 50), 50)), List.of(gone)))));
    LayerColumns c = models.of(layer(id, 2, 10));
    assertThat(c.has(10) && !c.has(4)).isTrue();
    assertThat(built).isEqualTo(1);
  }

  /** A layer that was just made: its first features come one by one. */
  @Test
  void aLayerOfNoFeatureTakesItsFirstOnes() {
    ReadModels models = models(0.1);
    UUID id = UUID.randomUUID();
    models.of(layer(id, 1, 0));
    for (int i = 1; i <= 3; i++)
      models.changed(
          LayerChanged.one(
              id, 1 + i, Instant.EPOCH, row(new UUID(id.getMostSignificantBits(), i), i)));
    assertThat(models.of(layer(id, 4, 3)).count()).isEqualTo(3);
    assertThat(built).isEqualTo(1);
  }

  @Test
  void newsThatCrossOnTheWayAreTakenInTheirOrder() {
    ReadModels models = models(0.1);
    UUID id = UUID.randomUUID();
    models.of(layer(id, 1, 10));
    UUID third = new UUID(id.getMostSignificantBits(), 3);
    models.changed(LayerChanged.one(id, 3, Instant.EPOCH, row(third, 300)));
    models.changed(LayerChanged.one(id, 2, Instant.EPOCH, row(third, 200)));
    assertThat(models.of(layer(id, 3, 10)).column("n").orElseThrow().value(3))
        .isEqualTo(Value.of(300));
    assertThat(built).isEqualTo(1);
  }

  @Test
  void whatIsToldWhileAModelIsMadeIsInIt() {
    ReadModels models = models(0.1);
    UUID id = UUID.randomUUID();
    Layer l = layer(id, 1, 10);
    UUID third = new UUID(id.getMostSignificantBits(), 3);
    whileBuilding = () -> models.changed(LayerChanged.one(id, 2, Instant.EPOCH, row(third, 77)));
    models.of(l);
    assertThat(models.of(layer(id, 2, 10)).column("n").orElseThrow().value(3))
        .isEqualTo(Value.of(77));
    assertThat(built).isEqualTo(1);
  }

  @Test
  void aModelIsNotMadeWithinAWritingTransaction() {
    ReadModels models = models(0.1);
    Layer l = layer(UUID.randomUUID(), 1, 10);
    TransactionSynchronizationManager.setActualTransactionActive(true);
    try {
      assertThatExceptionOfType(IllegalStateException.class).isThrownBy(() -> models.of(l));
    } finally {
      TransactionSynchronizationManager.setActualTransactionActive(false);
    }
  }

  /** As after a start: the file of the layer's revision is read, any other is as good as none. */
  @Test
  void aLargeModelComesFromItsFileAndADamagedOneIsMadeAnew() throws Exception {
    UUID id = UUID.randomUUID();
    Layer l = layer(id, 5, 30_000);
    ReadModels first = models(0.4);
    LayerColumns made = first.of(l);
    first.keepAll();
    assertThat(built).isEqualTo(1);
    assertThat(models(0.4).of(l).feature(29_999)).isEqualTo(made.feature(29_999));
    assertThat(built).as("from the file").isEqualTo(1);
    models(0.4).of(layer(id, 6, 30_000));
    assertThat(built).as("the file is of an older revision").isEqualTo(2);
    Path file = tmp.resolve("models/" + id + ".columns");
    byte[] bytes = java.nio.file.Files.readAllBytes(file);
    bytes[bytes.length / 2] ^= 4;
    java.nio.file.Files.write(file, bytes);
    LayerColumns anew = models(0.4).of(layer(id, 5, 30_000));
    assertThat(anew.feature(15_000)).isEqualTo(made.feature(15_000));
    assertThat(built).as("the file is damaged").isEqualTo(3);
    java.nio.file.Files.write(file, new byte[0]);
    assertThat(models(0.4).of(layer(id, 5, 30_000)).count()).isEqualTo(30_000);
  }

  @Test
  void togetherTheyTakeNoMoreThanTheirShareAndTheOldestGoesFirst() {
    ReadModels models = models(200_000 / BYTES);
    Layer a = layer(UUID.randomUUID(), 1, 1_200);
    Layer b = layer(UUID.randomUUID(), 1, 1_200);
    models.of(a);
    models.of(b);
    assertThat(models.bytes()).isLessThan(200_000);
    models.of(b);
    assertThat(built).isEqualTo(2);
    models.of(a);
    assertThat(built).as("the first one had gone").isEqualTo(3);
  }

  @Test
  void aLayerThatCannotFitIsRefusedInWords() {
    ReadModels models = models(200_000 / BYTES);
    Layer huge = layer(UUID.randomUUID(), 1, 5_000_000);
    assertThatExceptionOfType(Refusal.class)
        .isThrownBy(() -> models.of(huge))
        .satisfies(English.says("5,000,000 features"));
    assertThat(built).isZero();
  }
}
