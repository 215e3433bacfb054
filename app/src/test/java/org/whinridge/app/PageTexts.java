package org.whinridge.app;

import java.util.ArrayList;
import java.util.List;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/** Texts that stand in a page's template itself instead of in the catalogue. */
final class PageTexts {
  private static final Pattern TAG =
      Pattern.compile(
          "<[!/]?[a-z][\\w:-]*((?:\\s+[^\\s\"'>=/]+(?:=\"[^\"]*\")?)*)\\s*/?>", Pattern.DOTALL);
  private static final Pattern SPOKEN =
      Pattern.compile("\\s(?:aria-label|placeholder|title|alt)=\"([^\"]*)\"");
  private static final Pattern WORD = Pattern.compile("\\p{L}{2}");

  private PageTexts() {}

  /** Each with the file's name; formulas and names of fields stand in elements of class code. */
  static List<String> ofTheirOwn(String file, String html) {
    List<String> out = new ArrayList<>();
    Matcher tag = TAG.matcher(html);
    int end = 0;
    boolean code = false;
    while (tag.find()) {
      String text = html.substring(end, tag.start()).replaceAll("(?s)\\[\\[.*?]]", "");
      if (!code && WORD.matcher(text).find()) out.add(file + ": " + text.strip());
      Matcher spoken = SPOKEN.matcher(tag.group());
      while (spoken.find())
        // a placeholder that shows a formula or a position is no text
        if (WORD.matcher(spoken.group(1)).find() && !spoken.group(1).matches(".*[=&;\\\\].*"))
          out.add(file + ": " + spoken.group(1));
      code = tag.group().matches("(?s).*class=\"code\".*");
      end = tag.end();
    }
    return out;
  }
}
