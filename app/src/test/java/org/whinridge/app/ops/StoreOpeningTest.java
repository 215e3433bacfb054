package org.whinridge.app.ops;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.io.ByteArrayOutputStream;
import java.io.PrintStream;
import java.nio.file.Files;
import java.nio.file.Path;
import java.sql.Connection;
import java.sql.ResultSet;
import java.sql.Statement;
import java.time.Instant;
import java.util.List;
import org.h2.jdbcx.JdbcDataSource;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** Copies of a running store, a store that can't be opened, and the way back. */
class StoreOpeningTest {
  @TempDir Path data;
  private String url;
  private StoreCopier copier;

  @BeforeEach
  void store() throws Exception {
    url = "jdbc:h2:file:" + data.resolve("whinridge") + ";WRITE_DELAY=0;RETENTION_TIME=0";
    copier = new StoreCopier(data.resolve("copies"));
    try (Connection c = source().getConnection();
        Statement s = c.createStatement()) {
      for (String t : List.of("layer", "visit", "ledger_entry", "hand_in"))
        s.execute("create table " + t + " (id int primary key)");
      s.execute("create table feature (id int primary key, geom geometry(geometry, 4326))");
      s.execute("insert into feature values (1, 'SRID=4326;POINT(-10.2 57.9)')");
      s.execute("insert into visit values (1)");
    }
  }

  private JdbcDataSource source() {
    JdbcDataSource d = new JdbcDataSource();
    d.setUrl(url);
    d.setUser("whinridge");
    d.setPassword("");
    return d;
  }

  private int visits() throws Exception {
    try (Connection c = StoreOpening.open(data, url);
        Statement s = c.createStatement();
        ResultSet r = s.executeQuery("select count(*) from visit")) {
      r.next();
      return r.getInt(1);
    }
  }

  private void handIn(int id) throws Exception {
    try (Connection c = source().getConnection();
        Statement s = c.createStatement()) {
      s.execute("insert into visit values (" + id + ")");
    }
  }

  private void damage() throws Exception {
    Path file = data.resolve("whinridge.mv.db");
    byte[] bytes = Files.readAllBytes(file);
    java.util.Arrays.fill(bytes, 0, bytes.length, (byte) 7);
    Files.write(file, bytes);
  }

  @Test
  void aCopyIsMadeWhileTheStoreIsOpenAndHoldsWhatWasCommittedBefore() throws Exception {
    try (Connection open = source().getConnection();
        Statement s = open.createStatement()) {
      open.setAutoCommit(false);
      s.execute("insert into visit values (99)"); // not committed
      Instant at = Instant.parse("2026-05-04T09:30:00.123Z");
      StoreCopier.Copy c = copier.make(source(), at);
      assertThat(c.name()).isEqualTo("store-20260504T093000123Z.zip");
      assertThat(copier.all()).containsExactly(c);
      StoreCopier.unpack(c.file(), data.resolve("back.mv.db"));
      StoreCopier.sound(data.resolve("back"));
    }
    for (int i = 1; i <= 5; i++)
      copier.make(source(), Instant.parse("2026-05-04T10:00:00Z").plusSeconds(i));
    copier.keepNewest(3);
    assertThat(copier.all()).hasSize(3);
    assertThat(copier.all().get(0).upTo()).isEqualTo("2026-05-04T10:00:05Z");
    try (var files = Files.list(data.resolve("copies"))) {
      assertThat(files).as("nothing half made is left").hasSize(3);
    }
  }

  @Test
  void aStoreThatCannotBeOpenedIsKeptAsideAndTheWayBackIsNamed() throws Exception {
    StoreCopier.Copy copy = copier.make(source(), Instant.parse("2026-05-04T09:30:00Z"));
    handIn(2);
    assertThat(visits()).isEqualTo(2);
    damage();
    assertThatThrownBy(() -> StoreOpening.open(data, url))
        .isInstanceOf(StoreOpening.NotOpened.class)
        .hasMessageContaining("kept aside")
        .hasMessageContaining("2026-05-04T09:30:00Z")
        .hasMessageContaining("./run --back-to " + copy.name());
    assertThat(data.resolve("whinridge.mv.db")).doesNotExist();
    try (var broken = Files.list(data.resolve("broken"))) {
      assertThat(broken).hasSize(1);
    }
    assertThatThrownBy(() -> StoreOpening.open(data, url))
        .as("the next start begins no empty store")
        .hasMessageContaining("./run --back-to " + copy.name());
    Files.createDirectories(data.resolve("models"));
    Files.writeString(data.resolve("models/old.columns"), "of the store that was left");
    ByteArrayOutputStream told = new ByteArrayOutputStream();
    StoreOpening.goBack(data, copy.name(), new PrintStream(told, true, "UTF-8"));
    assertThat(told.toString("UTF-8")).contains("Gone back to the copy of 2026-05-04T09:30:00Z");
    assertThat(visits()).as("the copy has the first visit alone").isEqualTo(1);
    assertThat(data.resolve("models")).doesNotExist();
  }

  @Test
  void aNoteAsksTheNextStartToGoBack() throws Exception {
    StoreCopier.Copy copy = copier.make(source(), Instant.parse("2026-05-04T09:30:00Z"));
    handIn(2);
    ByteArrayOutputStream told = new ByteArrayOutputStream();
    PrintStream out = new PrintStream(told, true, "UTF-8");
    assertThat(StoreOpening.asked(data, out)).as("nobody asked").isFalse();
    StoreOpening.ask(data, copy.name());
    assertThat(StoreOpening.asked(data, out)).isTrue();
    assertThat(visits()).isEqualTo(1);
    assertThat(StoreOpening.asked(data, out)).as("once").isFalse();
    handIn(3);
    StoreOpening.ask(data, "store-of-nobody.zip");
    assertThat(StoreOpening.asked(data, out)).isTrue();
    assertThat(told.toString("UTF-8")).contains("The store stays as it was");
    assertThat(visits()).as("and the start goes on with it").isEqualTo(2);
    assertThat(StoreOpening.asked(data, out)).isFalse();
  }

  @Test
  void goingBackAsksForACopyThatIsThereAndForAStoreThatNobodyUses() throws Exception {
    StoreCopier.Copy copy = copier.make(source(), Instant.parse("2026-05-04T09:30:00Z"));
    for (String name : List.of("store-1.zip", "../whinridge.mv.db", "", "copy.part"))
      assertThatThrownBy(() -> StoreOpening.goBack(data, name, System.out))
          .isInstanceOf(StoreOpening.NotOpened.class)
          .hasMessageContaining(copy.name());
    try (Connection open = source().getConnection()) {
      assertThat(open.isValid(1)).isTrue();
      assertThatThrownBy(() -> StoreOpening.goBack(data, copy.name(), System.out))
          .hasMessageContaining("A server runs on this store");
    }
    assertThat(visits()).isEqualTo(1);
  }

  @Test
  void aStoreThatHasAnotherPasswordStaysWhereItIs() throws Exception {
    try (Connection open = source().getConnection();
        Statement s = open.createStatement()) {
      s.execute("alter user whinridge set password 'other'");
    }
    assertThatThrownBy(() -> StoreOpening.open(data, url))
        .hasMessageContaining("Nothing was changed");
    assertThat(data.resolve("whinridge.mv.db")).exists();
    assertThat(data.resolve("broken")).doesNotExist();
  }

  @Test
  void noStoreYetIsNoFault() throws Exception {
    assertThat(StoreOpening.open(data.resolve("elsewhere"), url)).isNull();
  }

  /** A copy that came out damaged is not called one. */
  @Test
  void aCopyThatDoesNotOpenIsNotKept() throws Exception {
    Path zip = data.resolve("bad.zip");
    try (var z = new java.util.zip.ZipOutputStream(Files.newOutputStream(zip))) {
      z.putNextEntry(new java.util.zip.ZipEntry("whinridge.mv.db"));
      z.write(new byte[40_000]);
    }
    StoreCopier.unpack(zip, data.resolve("bad.mv.db"));
    assertThatThrownBy(() -> StoreCopier.sound(data.resolve("bad")))
        .hasMessageContaining("can't be opened");
  }
}
