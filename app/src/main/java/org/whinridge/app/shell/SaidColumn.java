package org.whinridge.app.shell;

import com.eclipsesource.json.Json;
import com.eclipsesource.json.ParseException;
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
    if (said.isText()) return cut(said.toString());
    for (int most : LONGEST_PARTS) {
      String json = said.cut(most).json().toString();
      if (json.length() <= HOLDS) return json;
    }
    return Said.of(said.key()).json().toString();
  }

  private static String cut(String s) {
    return s.length() <= HOLDS ? s : s.substring(0, HOLDS);
  }

  /** From how it was kept. */
  public static Said read(String kept) {
    if (!kept.startsWith("{\"say\":")) return Said.text(kept);
    try {
      Said said = Said.read(Json.parse(kept));
      return said.isEmpty() ? Said.text(kept) : said;
    } catch (ParseException e) {
      return Said.text(kept); // somebody's own words that begin so
    }
  }
}
