package org.whinridge.app.browser;

import com.ibm.icu.text.MessagePattern;
import com.ibm.icu.text.MessagePattern.Part;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.LinkedHashMap;
import java.util.Map;
import tools.jackson.core.type.TypeReference;
import tools.jackson.databind.json.JsonMapper;

/**
 * A language that nobody speaks: English words with accents and longer by almost a half, each text
 * between marks, read from right to left.
 */
final class PseudoLanguage {
  private static final String PLAIN = "aceinosuyACEINOSUY";
  private static final String ACCENTED = "áçéïñöšüýÁÇÉÏÑÖŠÜÝ";
  private static final JsonMapper JSON = JsonMapper.builder().build();

  private PseudoLanguage() {}

  /** Its file, made of the English one. */
  static String file() throws IOException {
    Map<String, String> english =
        JSON.readValue(
            Files.readString(Path.of("src/main/resources/messages/en.json")),
            new TypeReference<LinkedHashMap<String, String>>() {});
    Map<String, String> out = new LinkedHashMap<>();
    english.forEach(
        (key, text) -> out.put(key, key.startsWith("@") ? text : "⟦" + longer(text) + "⟧"));
    out.put("@direction", "rtl");
    return JSON.writeValueAsString(out);
  }

  /** A pattern with its literal text changed, its arguments as they are. */
  private static String longer(String pattern) {
    MessagePattern p = new MessagePattern(pattern);
    StringBuilder out = new StringBuilder();
    int depth = 0; // within an argument, outside of its messages
    int at = 0;
    int letters = 0;
    for (int i = 0; i < p.countParts(); i++) {
      Part part = p.getPart(i);
      String between = pattern.substring(at, Math.max(at, part.getIndex()));
      out.append(depth == 0 ? accented(between) : between);
      if (depth == 0) letters += between.length();
      out.append(pattern, Math.max(at, part.getIndex()), part.getLimit());
      at = Math.max(at, part.getLimit());
      switch (part.getType()) {
        case ARG_START -> depth = 1;
        case ARG_LIMIT -> depth = 0;
        case MSG_START -> depth = 0;
        case MSG_LIMIT -> depth = i + 1 < p.countParts() ? 1 : 0;
        default -> {}
      }
    }
    out.append(depth == 0 ? accented(pattern.substring(at)) : pattern.substring(at));
    return out + " " + "~".repeat(Math.min(40, letters * 2 / 5));
  }

  private static String accented(String text) {
    StringBuilder out = new StringBuilder();
    for (char c : text.toCharArray()) {
      int i = PLAIN.indexOf(c);
      out.append(i < 0 ? c : ACCENTED.charAt(i));
    }
    return out.toString();
  }
}
