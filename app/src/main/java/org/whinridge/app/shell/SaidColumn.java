package org.whinridge.app.shell;

import jakarta.persistence.AttributeConverter;
import jakarta.persistence.Converter;
import org.whinridge.core.said.Said;

/**
 * What is told of something and kept with it: its key and what is put into its text, so that it is
 * read in the reader's language whenever that is. What was kept before there were keys, and what
 * people wrote, is told as it stands.
 */
@Converter(autoApply = true)
public class SaidColumn implements AttributeConverter<Said, String> {
  /** How much a column holds, in characters. */
  private static final int HOLDS = 4000;

  /** To what its parts are cut, tried one after the other until all of it fits. */
  private static final int[] LONGEST_PARTS = {300, 100, 20};

  @Override
  public String convertToDatabaseColumn(Said said) {
    return said == null ? null : written(said);
  }

  @Override
  public Said convertToEntityAttribute(String kept) {
    return kept == null ? null : read(kept);
  }

  /** As it is kept. */
  public static String written(Said said) {
    if (said.isText()) return text(said.toString());
    for (int most : LONGEST_PARTS) {
      String json = said.cut(most).json().toString();
      if (json.length() <= HOLDS) return json;
    }
    return Said.of(said.key()).json().toString();
  }

  /** As it stands, unless somebody's own words look like a key: they must not come back as one. */
  private static String text(String s) {
    String kept = Said.text(s).inText();
    if (kept.equals(s)) return s.length() <= HOLDS ? s : s.substring(0, HOLDS);
    for (String t = s; kept.length() > HOLDS; kept = Said.text(t).inText())
      t = t.substring(0, t.length() * 9 / 10);
    return kept;
  }

  /** From how it was kept. */
  public static Said read(String kept) {
    return Said.ofText(kept);
  }
}
