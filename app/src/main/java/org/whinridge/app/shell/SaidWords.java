package org.whinridge.app.shell;

import java.util.Locale;
import org.springframework.format.Formatter;
import org.springframework.stereotype.Component;
import org.whinridge.core.said.Said;

/** Puts what is told into words on pages: {@code ${{told}}}. */
@Component
class SaidWords implements Formatter<Said> {
  private final Catalogue catalogue;

  SaidWords(Catalogue catalogue) {
    this.catalogue = catalogue;
  }

  @Override
  public String print(Said said, Locale reader) {
    return catalogue.say(reader, said);
  }

  @Override
  public Said parse(String text, Locale reader) {
    return Said.text(text);
  }
}
