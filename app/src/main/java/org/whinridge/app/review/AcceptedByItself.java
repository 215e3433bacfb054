package org.whinridge.app.review;

import java.util.UUID;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.stereotype.Component;
import org.whinridge.app.daybook.AfterHandIn;
import org.whinridge.app.daybook.Visit;
import org.whinridge.app.daybook.Visits;
import org.whinridge.app.form.Forms;
import org.whinridge.app.shell.Refusal;
import org.whinridge.core.form.FormSettings;
import org.whinridge.core.visit.VisitState;

/**
 * Accepts visits of forms that say so, where nothing clashes and the server's own run of the rules
 * found nothing; all else waits for a person.
 */
@Component
class AcceptedByItself implements AfterHandIn {
  private static final Logger LOG = LoggerFactory.getLogger(AcceptedByItself.class);
  private final Visits visits;
  private final Forms forms;
  private final ReviewDesk review;

  AcceptedByItself(Visits visits, Forms forms, ReviewDesk review) {
    this.visits = visits;
    this.forms = forms;
    this.review = review;
  }

  @Override
  public void kept(UUID id) {
    try {
      Visit v = visits.get(id);
      boolean asks =
          forms
              .edition(v.formId(), v.edition())
              .filter(e -> e.form().settings().review() == FormSettings.Review.ITSELF)
              .isPresent();
      if (asks && v.state() == VisitState.WAITING && !v.clash() && v.findings().isEmpty())
        review.acceptByItself(id);
    } catch (Refusal e) {
      LOG.info("the visit {} waits for a person: {}", id, e.said());
    } catch (RuntimeException e) {
      LOG.error("the visit {} could not be accepted by itself; it waits", id, e);
    }
  }
}
