package org.whinridge.app.people;

import java.util.Locale;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.beans.factory.ObjectProvider;
import org.springframework.beans.factory.annotation.Value;
import org.springframework.core.task.AsyncTaskExecutor;
import org.springframework.mail.MailException;
import org.springframework.mail.SimpleMailMessage;
import org.springframework.mail.javamail.JavaMailSender;
import org.springframework.stereotype.Component;
import org.whinridge.app.shell.Catalogue;

/**
 * Mails, where the installation can send them: it knows a mail server, a sender and its own
 * address. The address is a setting and never what a request says of its host, which anybody can
 * write.
 */
@Component
public class Mails {
  private static final Logger LOG = LoggerFactory.getLogger(Mails.class);
  private final ObjectProvider<JavaMailSender> sender;
  private final AsyncTaskExecutor later;
  private final Catalogue catalogue;
  private final String from;
  private final String address;

  Mails(
      ObjectProvider<JavaMailSender> sender,
      AsyncTaskExecutor applicationTaskExecutor,
      Catalogue catalogue,
      @Value("${whinridge.mail-from:}") String from,
      @Value("${whinridge.address:}") String address) {
    this.sender = sender;
    this.later = applicationTaskExecutor;
    this.catalogue = catalogue;
    this.from = from;
    this.address = address.replaceAll("/+$", "");
  }

  /** Whether mails can be sent. */
  public boolean canSend() {
    return sender.getIfAvailable() != null && !from.isEmpty() && !address.isEmpty();
  }

  /**
   * Sends a link, after the request was answered.
   *
   * @param what the texts mail.[what].subject and mail.[what].body
   */
  public void send(String to, String account, String what, String path, Locale reader) {
    SimpleMailMessage m = new SimpleMailMessage();
    m.setFrom(from);
    m.setTo(to);
    m.setSubject(catalogue.say(reader, "mail." + what + ".subject"));
    m.setText(
        catalogue.say(reader, "mail." + what + ".body", "name", account, "link", address + path));
    later.execute(
        () -> {
          try {
            sender.getObject().send(m);
          } catch (MailException e) {
            LOG.error("a mail to {} could not be sent: {}", account, e.getMessage());
          }
        });
  }
}
