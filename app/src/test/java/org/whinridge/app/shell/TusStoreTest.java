package org.whinridge.app.shell;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatExceptionOfType;

import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.io.InputStream;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.attribute.FileTime;
import java.time.Instant;
import java.util.UUID;
import java.util.concurrent.CompletableFuture;
import java.util.concurrent.CountDownLatch;
import java.util.concurrent.TimeUnit;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** Uploads that break off, stall, run over, or belong to somebody else. */
class TusStoreTest {
  @TempDir Path tmp;
  private TusStore store;

  @BeforeEach
  void open() throws Exception {
    var constructor = DataFolder.class.getDeclaredConstructor(String.class);
    constructor.setAccessible(true);
    store = new TusStore(constructor.newInstance(tmp.toString()));
  }

  private static InputStream bytes(int n) {
    return new ByteArrayInputStream(new byte[n]);
  }

  @Test
  void whatArrivedBeforeACutStaysAndTheUploadGoesOnFromThere() throws Exception {
    TusStore.Info i = store.create(1000, "inspector1", "photo");
    InputStream cut =
        new InputStream() {
          private int left = 300;

          @Override
          public int read() throws IOException {
            if (left-- == 0) throw new IOException("the link broke off");
            return 1;
          }

          @Override
          public int read(byte[] b, int off, int len) throws IOException {
            b[off] = (byte) read();
            return 1;
          }
        };
    assertThatExceptionOfType(IOException.class).isThrownBy(() -> store.append(i, 0, cut));
    assertThat(store.offset(i.id())).isEqualTo(300);
    assertThat(store.append(i, 300, bytes(700))).isEqualTo(1000);
  }

  @Test
  void aStalledRequestIsSupersededByANewerOneAndWritesNoMore() throws Exception {
    TusStore.Info i = store.create(1000, "inspector1", "photo");
    CountDownLatch half = new CountDownLatch(1);
    CountDownLatch goOn = new CountDownLatch(1);
    InputStream stalled =
        new InputStream() {
          private int n;

          @Override
          public int read() throws IOException {
            throw new IOException("not used");
          }

          @Override
          public int read(byte[] b, int off, int len) throws IOException {
            if (n++ == 0) return 400;
            half.countDown();
            try {
              goOn.await(10, TimeUnit.SECONDS);
            } catch (InterruptedException e) {
              throw new IOException(e);
            }
            return 100;
          }
        };
    CompletableFuture<Integer> first =
        CompletableFuture.supplyAsync(
            () -> {
              try {
                store.append(i, 0, stalled);
                return 0;
              } catch (TusRefusal e) {
                return e.status;
              } catch (IOException e) {
                return -1;
              }
            });
    assertThat(half.await(10, TimeUnit.SECONDS)).isTrue();
    assertThat(store.offset(i.id())).as("not held up by the stalled one").isEqualTo(400);
    assertThat(store.append(i, 400, bytes(600))).isEqualTo(1000);
    goOn.countDown();
    assertThat(first.get(10, TimeUnit.SECONDS)).isEqualTo(409);
    assertThat(Files.size(store.data(i.id()))).isEqualTo(1000);
  }

  @Test
  void moreThanAnnouncedAndWrongOffsetsAreRefused() throws Exception {
    TusStore.Info i = store.create(10, "inspector1", "photo");
    assertThatExceptionOfType(TusRefusal.class)
        .isThrownBy(() -> store.append(i, 0, bytes(11)))
        .satisfies(e -> assertThat(e.status).isEqualTo(413));
    assertThatExceptionOfType(TusRefusal.class)
        .isThrownBy(() -> store.append(i, 5, bytes(1)))
        .satisfies(e -> assertThat(e.status).isEqualTo(409));
  }

  @Test
  void anUploadBelongsToWhoBeganItAndSurvivesARestart() throws Exception {
    String photo = UUID.randomUUID().toString();
    TusStore.Info i = store.create(10, "inspector1", photo);
    store.append(i, 0, bytes(4));
    open();
    assertThat(store.find(i.id(), "inspector1").about()).isEqualTo(photo);
    assertThat(store.offset(i.id())).isEqualTo(4);
    assertThatExceptionOfType(TusRefusal.class)
        .isThrownBy(() -> store.find(i.id(), "inspector2"))
        .satisfies(e -> assertThat(e.status).isEqualTo(404));
    store.remove(i.id());
    assertThatExceptionOfType(TusRefusal.class).isThrownBy(() -> store.find(i.id(), "inspector1"));
  }

  @Test
  void theSweepDropsOnlyWhatRanOut() throws Exception {
    TusStore.Info old = store.create(10, "inspector1", "photo");
    TusStore.Info young = store.create(10, "inspector1", "photo");
    try (var all = Files.list(tmp.resolve("uploads"))) {
      for (Path p :
          all.filter(p -> p.getFileName().toString().startsWith(old.id().toString())).toList())
        Files.setLastModifiedTime(
            p, FileTime.from(Instant.now().minus(TusStore.KEPT).minusSeconds(60)));
    }
    store.sweep();
    assertThatExceptionOfType(TusRefusal.class)
        .isThrownBy(() -> store.find(old.id(), "inspector1"));
    assertThat(store.find(young.id(), "inspector1").about()).isEqualTo(young.about());
  }
}
