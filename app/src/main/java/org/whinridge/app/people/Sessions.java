package org.whinridge.app.people;

import java.util.Set;
import org.springframework.session.FindByIndexNameSessionRepository;
import org.springframework.session.Session;
import org.springframework.stereotype.Component;

/** Who is signed in, and their end. */
@Component
public class Sessions {
  private final FindByIndexNameSessionRepository<? extends Session> all;

  Sessions(FindByIndexNameSessionRepository<? extends Session> all) {
    this.all = all;
  }

  /** Ends all of a person's, but for one. */
  void end(String account, String but) {
    Set<String> ids = all.findByPrincipalName(account).keySet();
    ids.stream().filter(id -> !id.equals(but)).forEach(all::deleteById);
  }

  /** Ends one. */
  public void end(String id) {
    all.deleteById(id);
  }
}
