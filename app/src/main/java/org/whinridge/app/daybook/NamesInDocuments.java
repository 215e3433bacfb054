package org.whinridge.app.daybook;

import com.eclipsesource.json.Json;
import com.eclipsesource.json.JsonObject;
import com.eclipsesource.json.JsonValue;
import java.nio.charset.StandardCharsets;
import java.util.List;
import java.util.UUID;
import org.springframework.jdbc.core.JdbcTemplate;
import org.springframework.stereotype.Component;
import org.springframework.transaction.annotation.Propagation;
import org.springframework.transaction.annotation.Transactional;
import org.whinridge.app.people.BuiltOnAccounts;
import org.whinridge.app.shell.Sha256;

/**
 * Replaces the name of somebody who was removed in what their devices sent. What they wrote
 * themselves into fields of a layer is the layer's, and stays.
 */
@Component
class NamesInDocuments implements BuiltOnAccounts {
  /** What is told with names put into it. */
  private static final List<String> TOLD =
      List.of("ledger_entry.summary", "visit.reason", "set_aside.reason", "layer.source");

  private final JdbcTemplate jdbc;

  NamesInDocuments(JdbcTemplate jdbc) {
    this.jdbc = jdbc;
  }

  @Override
  @Transactional(propagation = Propagation.MANDATORY)
  public void renamed(String account, String by) {
    for (UUID id : jdbc.queryForList("select id from visit where person = ?", UUID.class, by)) {
      String text =
          jdbc.queryForObject("select document from visit where id = ?", String.class, id);
      JsonObject document = Json.parse(text).asObject();
      JsonValue start = document.get("start");
      if (start == null || !start.isObject()) continue;
      if (!account.equals(start.asObject().getString("person", ""))) continue;
      start.asObject().set("person", by);
      String now = document.toString();
      jdbc.update(
          "update visit set document = ?, document_hash = ? where id = ?",
          now,
          Sha256.of(now.getBytes(StandardCharsets.UTF_8)),
          id);
    }
    // in what is told, and in what could not be read as a visit, it goes as a whole value
    String was = Json.value(account).toString();
    String is = Json.value(by).toString();
    for (String column : TOLD) {
      String[] of = column.split("\\.");
      jdbc.update(
          "update "
              + of[0]
              + " set "
              + of[1]
              + " = replace("
              + of[1]
              + ", ?, ?) where locate(?, "
              + of[1]
              + ") > 0",
          was,
          is,
          was);
    }
    for (UUID id : jdbc.queryForList("select id from set_aside where person = ?", UUID.class, by)) {
      String text =
          jdbc.queryForObject("select document from set_aside where id = ?", String.class, id);
      if (text.contains(was))
        jdbc.update("update set_aside set document = ? where id = ?", text.replace(was, is), id);
    }
  }
}
