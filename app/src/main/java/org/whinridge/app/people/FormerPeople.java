package org.whinridge.app.people;

import jakarta.persistence.EntityManager;
import java.util.List;
import org.springframework.jdbc.core.JdbcTemplate;
import org.springframework.stereotype.Component;
import org.springframework.transaction.annotation.Propagation;
import org.springframework.transaction.annotation.Transactional;
import org.whinridge.app.shell.Catalogue;
import org.whinridge.core.said.Said;

/** Replaces the name of somebody who was removed, in all columns that hold people's names. */
@Component
class FormerPeople {
  /** Every column with names of accounts; a test compares it with the tables. */
  static final List<String> COLUMNS =
      List.of(
          "layer.made_by",
          "ledger_entry.person",
          "feature.changed_by",
          "edition.published_by",
          "form_step.person",
          "form.changed_by",
          "form.retired_by",
          "form_file.kept_by",
          "form_template.kept_by",
          "form_trial.kept_by",
          "round_person.person",
          "stop.person",
          "round.closed_by",
          "round.made_by",
          "hand_in.person",
          "hand_in.brought_by",
          "visit.person",
          "visit.decided_by",
          "visit_photo.person",
          "basemap.made_by",
          "set_aside.person",
          "set_aside.given_to",
          "set_aside.decided_by",
          "member.account",
          "invitation.name",
          "invitation.made_by",
          "invitation.used_by",
          "account_link.account",
          "account_link.made_by",
          "terms.made_by",
          "terms_accepted.account",
          "device.account",
          "device.asked_by",
          "device.revoked_by",
          "device_pairing.account",
          "project.closed_by",
          "project.removed_by");

  private final JdbcTemplate jdbc;
  private final EntityManager entities;
  private final Catalogue catalogue;

  FormerPeople(JdbcTemplate jdbc, EntityManager entities, Catalogue catalogue) {
    this.catalogue = catalogue;
    this.jdbc = jdbc;
    this.entities = entities;
  }

  /** Puts "former person n" in the place of a name; gives it. */
  @Transactional(propagation = Propagation.MANDATORY)
  String replace(String name) {
    entities.flush();
    entities.clear();
    String by = free();
    jdbc.update(
        "insert into account (name, password_hash, keeper, state) select ?, password_hash, keeper, state from account where name = ?",
        by,
        name);
    for (String column : COLUMNS) {
      String[] of = column.split("\\.");
      jdbc.update("update " + of[0] + " set " + of[1] + " = ? where " + of[1] + " = ?", by, name);
    }
    jdbc.update("delete from account where name = ?", name);
    return by;
  }

  /** In the words of whoever removes somebody: it is a name from then on. */
  private String free() {
    for (int n = 1; ; n++) {
      String name = catalogue.say(Said.of("account.former", "n", n));
      Integer there =
          jdbc.queryForObject("select count(*) from account where name = ?", Integer.class, name);
      if (there != null && there == 0) return name;
    }
  }
}
