package org.whinridge.app.ops;

import static org.assertj.core.api.Assertions.assertThat;
import static org.mockito.ArgumentMatchers.any;
import static org.mockito.Mockito.mock;
import static org.mockito.Mockito.when;

import java.nio.file.Files;
import java.nio.file.Path;
import org.flywaydb.core.Flyway;
import org.h2.jdbcx.JdbcDataSource;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.springframework.jdbc.core.JdbcTemplate;
import org.whinridge.app.shell.DataFolder;

/** A store of an older version is copied, then upgraded with all that it holds. */
class UpgradeTest {
  @TempDir Path data;

  @Test
  void anOlderStoreIsCopiedFirstAndLosesNothing() throws Exception {
    JdbcDataSource store = new JdbcDataSource();
    store.setUrl("jdbc:h2:file:" + data.resolve("whinridge"));
    store.setUser("whinridge");
    store.setPassword("");
    Flyway.configure().dataSource(store).target("3").load().migrate();
    JdbcTemplate jdbc = new JdbcTemplate(store);
    jdbc.execute(
        "insert into hand_in values ('00000000-0000-0000-0000-000000000001', 'inspector1', 'phone', now(), 2)");
    for (String state : new String[] {"set aside", "waiting", "clash"})
      jdbc.update(
          "insert into visit (id, hand_in_id, edition, new_feature, person, device, received_at, document, document_hash, findings, state, reason) values (random_uuid(), '00000000-0000-0000-0000-000000000001', 1, false, 'inspector1', 'phone', now(), ?, '', '[]', ?, 'could not be read')",
          "the words of one that is " + state,
          state);
    DataFolder folder = mock(DataFolder.class);
    when(folder.folder(any()))
        .thenAnswer(call -> Files.createDirectories(data.resolve(call.<String>getArgument(0))));
    Flyway flyway = Flyway.configure().dataSource(store).load();
    new StoreKeeping.BeforeUpgrades().copyFirst(folder).migrate(flyway);

    assertThat(new StoreCopier(data.resolve("copies")).all()).hasSize(1);
    assertThat(jdbc.queryForList("select document from set_aside", String.class))
        .containsExactly("the words of one that is set aside");
    assertThat(jdbc.queryForList("select state || ' ' || clash from visit", String.class))
        .as("that a visit clashes is a property of a waiting one")
        .containsExactlyInAnyOrder("waiting FALSE", "waiting TRUE");
    assertThat(
            jdbc.queryForObject(
                "select count(*) from information_schema.indexes where index_name = 'IX_FEATURE_GEOM'",
                Long.class))
        .isZero();
    new StoreKeeping.BeforeUpgrades().copyFirst(folder).migrate(flyway);
    assertThat(new StoreCopier(data.resolve("copies")).all())
        .as("nothing to upgrade, nothing to copy")
        .hasSize(1);
  }
}
