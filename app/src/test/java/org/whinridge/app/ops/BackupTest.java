package org.whinridge.app.ops;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import com.eclipsesource.json.Json;
import com.eclipsesource.json.JsonObject;
import java.io.IOException;
import java.io.OutputStream;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.sql.Connection;
import java.sql.Statement;
import java.time.Instant;
import java.util.LinkedHashMap;
import java.util.Map;
import java.util.function.Consumer;
import java.util.zip.ZipEntry;
import java.util.zip.ZipFile;
import java.util.zip.ZipOutputStream;
import org.flywaydb.core.Flyway;
import org.h2.jdbcx.JdbcDataSource;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.whinridge.app.shell.Sha256;

/** A backup brings back what was there, or is refused as a whole. */
class BackupTest {
  @TempDir Path folder;
  private Path data;
  private Path file;
  private String photo;

  @BeforeEach
  void aStoreWithAPhoto() throws Exception {
    data = folder.resolve("data");
    Files.createDirectories(data);
    JdbcDataSource store = new JdbcDataSource();
    store.setURL("jdbc:h2:file:" + data.resolve(StoreCopier.STORE));
    store.setUser("whinridge");
    store.setPassword("");
    Flyway.configure().dataSource(store).load().migrate();
    try (Connection c = store.getConnection();
        Statement s = c.createStatement()) {
      s.execute("insert into account (name, password_hash, keeper) values ('Oda', '', true)");
    }
    byte[] bytes = "no picture, but bytes".getBytes(StandardCharsets.UTF_8);
    photo = Sha256.of(bytes);
    Path at = data.resolve("photos").resolve(photo.substring(0, 2)).resolve(photo + ".jpg");
    Files.createDirectories(at.getParent());
    Files.write(at, bytes);
    Files.write(at.resolveSibling("half.part"), bytes);
    StoreCopier.Copy copy = new StoreCopier(folder.resolve("copies")).make(store, Instant.now());
    file = folder.resolve("all.whinridge");
    BackupFile.write(data, copy.file(), file, Instant.now());
  }

  private Path restored() throws IOException {
    Path to = folder.resolve("restored");
    BackupFile.read(file, to, BackupCommand.newest());
    return to;
  }

  @Test
  void whatWasThereIsThere() throws Exception {
    Path to = restored();
    Path at = to.resolve("photos").resolve(photo.substring(0, 2)).resolve(photo + ".jpg");
    assertThat(Sha256.of(Files.readAllBytes(at))).isEqualTo(photo);
    JdbcDataSource store = new JdbcDataSource();
    store.setURL("jdbc:h2:file:" + to.resolve(StoreCopier.STORE) + ";IFEXISTS=TRUE");
    store.setUser("whinridge");
    store.setPassword("");
    try (Connection c = store.getConnection();
        var r = c.createStatement().executeQuery("select name from account")) {
      assertThat(r.next()).isTrue();
      assertThat(r.getString(1)).isEqualTo("Oda");
    }
    try (var all = Files.list(to)) {
      assertThat(all.map(p -> p.getFileName().toString()))
          .containsExactlyInAnyOrder("photos", StoreCopier.FILE);
    }
  }

  @Test
  void aStoreThatIsThereIsLeftAlone() throws Exception {
    assertThatThrownBy(() -> BackupFile.read(file, data, BackupCommand.newest()))
        .hasMessageContaining("already");
    assertThat(data.resolve(StoreCopier.FILE)).exists();
  }

  /** Writes the archive anew with other contents. */
  private void changed(Consumer<Map<String, byte[]>> change) throws IOException {
    Map<String, byte[]> all = new LinkedHashMap<>();
    try (ZipFile zip = new ZipFile(file.toFile())) {
      for (ZipEntry e : zip.stream().toList())
        all.put(e.getName(), zip.getInputStream(e).readAllBytes());
    }
    change.accept(all);
    try (OutputStream out = Files.newOutputStream(file);
        ZipOutputStream zip = new ZipOutputStream(out)) {
      for (Map.Entry<String, byte[]> e : all.entrySet()) {
        zip.putNextEntry(new ZipEntry(e.getKey()));
        zip.write(e.getValue());
        zip.closeEntry();
      }
    }
  }

  private void manifest(Consumer<JsonObject> change) throws IOException {
    changed(
        all -> {
          JsonObject m =
              Json.parse(new String(all.get(BackupFile.MANIFEST), StandardCharsets.UTF_8))
                  .asObject();
          change.accept(m);
          all.put(BackupFile.MANIFEST, m.toString().getBytes(StandardCharsets.UTF_8));
        });
  }

  private void refused(String why) {
    assertThatThrownBy(this::restored)
        .isInstanceOf(BackupFile.Unsound.class)
        .hasMessageContaining(why);
    assertThat(folder.resolve("restored")).isEmptyDirectory();
  }

  @Test
  void aDamagedOneIsRefused() throws Exception {
    changed(
        all ->
            all.replaceAll(
                (name, b) -> {
                  if (name.startsWith("photos/")) b[3] ^= 1;
                  return b;
                }));
    refused("damaged");
  }

  @Test
  void oneThatWasCutIsRefused() throws Exception {
    byte[] whole = Files.readAllBytes(file);
    Files.write(file, java.util.Arrays.copyOf(whole, whole.length / 2));
    refused("no backup");
  }

  @Test
  void oneWithoutItsPhotoIsRefused() throws Exception {
    changed(all -> all.keySet().removeIf(n -> n.startsWith("photos/")));
    refused("missing");
  }

  @Test
  void aNewerOneIsRefused() throws Exception {
    manifest(m -> m.set("version", BackupFile.VERSION + 1));
    refused("newer");
  }

  @Test
  void oneOfNewerTablesIsRefused() throws Exception {
    int next = BackupCommand.newest() + 1;
    manifest(m -> m.set("tables", next));
    refused("newer");
  }

  @Test
  void aForeignFileIsRefused() throws Exception {
    Files.writeString(file, "a letter to the board");
    refused("no backup");
    changedForeign();
    refused("no manifest");
  }

  private void changedForeign() throws IOException {
    try (OutputStream out = Files.newOutputStream(file);
        ZipOutputStream zip = new ZipOutputStream(out)) {
      zip.putNextEntry(new ZipEntry("letter.txt"));
      zip.closeEntry();
    }
  }

  @Test
  void aPathOutOfTheFolderIsRefused() throws Exception {
    manifest(
        m -> m.get("files").asArray().get(1).asObject().set("path", "photos/../../../escaped.jpg"));
    refused("can't be one");
  }

  @Test
  void whatTheManifestDoesNotNameIsRefused() throws Exception {
    changed(all -> all.put("more.txt", new byte[1]));
    refused("does not name");
  }

  /** /dev/full is a disk without room: what can't be written leaves nothing behind. */
  @Test
  void aFullDiskLeavesNothing() throws Exception {
    Path full = Path.of("/dev/full");
    org.junit.jupiter.api.Assumptions.assumeTrue(Files.exists(full));
    Path to = folder.resolve("onto-a-full-disk");
    Files.createSymbolicLink(folder.resolve("onto-a-full-disk.part"), full);
    StoreCopier.Copy copy = new StoreCopier(folder.resolve("copies")).all().get(0);
    assertThatThrownBy(() -> BackupFile.write(data, copy.file(), to, Instant.now()))
        .isInstanceOf(IOException.class);
    assertThat(to).doesNotExist();
    assertThat(Files.exists(folder.resolve("onto-a-full-disk.part"))).isFalse();
  }
}
