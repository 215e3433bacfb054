package org.whinridge.app.form;

import java.util.UUID;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.scheduling.annotation.Scheduled;
import org.springframework.stereotype.Component;
import org.whinridge.app.layer.Layers;

/** Publishes drafts that are sound and that nobody has touched for as long as they say. */
@Component
class PublishingByItself {
  private static final Logger LOG = LoggerFactory.getLogger(PublishingByItself.class);
  private final Forms forms;

  PublishingByItself(Forms forms) {
    this.forms = forms;
  }

  /** One form's trouble is no other's; what failed is tried again a minute later. */
  @Scheduled(initialDelay = 20_000, fixedDelay = 60_000)
  void publish() {
    for (UUID form : forms.due(Layers.now()))
      try {
        forms.publishDue(form);
      } catch (RuntimeException e) {
        LOG.error("the form {} could not be published by itself", form, e);
      }
  }
}
