package org.whinridge.app.form;

import com.eclipsesource.json.Json;
import org.springframework.jdbc.core.JdbcTemplate;
import org.springframework.stereotype.Component;
import org.springframework.transaction.annotation.Propagation;
import org.springframework.transaction.annotation.Transactional;
import org.whinridge.app.people.BuiltOnAccounts;

/** Replaces the name of somebody who was removed in trials, where it stands as a whole value. */
@Component
class TrialNames implements BuiltOnAccounts {
  private final JdbcTemplate jdbc;

  TrialNames(JdbcTemplate jdbc) {
    this.jdbc = jdbc;
  }

  @Override
  @Transactional(propagation = Propagation.MANDATORY)
  public void renamed(String account, String by) {
    String was = Json.value(account).toString();
    jdbc.update(
        "update form_trial set content = replace(content, ?, ?) where locate(?, content) > 0",
        was,
        Json.value(by).toString(),
        was);
  }
}
