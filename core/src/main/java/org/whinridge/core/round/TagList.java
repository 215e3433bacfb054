package org.whinridge.core.round;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import org.whinridge.core.read.Column;
import org.whinridge.core.read.LayerColumns;
import org.whinridge.core.text.Blanks;
import org.whinridge.core.text.Fold;

/**
 * Tags as somebody pastes them to choose stops by: one on each line, or parted by commas,
 * semicolons or tabs, with or without quotes.
 *
 * @param tags each once, as it was written first, in the order of the list
 * @param twice those that were there more than once
 */
public record TagList(List<String> tags, List<String> twice) {
  /** Quotes that may stand around a tag: what opens, and what ends it. */
  private static final String[] QUOTES = {"\u201c\u201d", "\u2018\u2019", "\u201e\u201c", "''"};

  public TagList {
    tags = List.copyOf(tags);
    twice = List.copyOf(twice);
  }

  /**
   * What the tags of a list belong to.
   *
   * @param features ids, each once, in the order of the list
   * @param missing tags that no feature has
   * @param several tags that more than one has, all of which are chosen
   */
  public record Found(List<String> features, List<String> missing, List<String> several) {}

  /** Reads a pasted text. */
  public static TagList read(String text) {
    Map<String, String> tags = new LinkedHashMap<>();
    Set<String> twice = new LinkedHashSet<>();
    for (String part : parts(text)) {
      String before = tags.putIfAbsent(key(part), part);
      if (before != null) twice.add(before);
    }
    return new TagList(List.copyOf(tags.values()), List.copyOf(twice));
  }

  /** Straight double quotes hold a tag together, doubled ones within are one (as in RFC 4180). */
  private static List<String> parts(String text) {
    List<String> out = new ArrayList<>();
    StringBuilder part = new StringBuilder();
    boolean within = false;
    for (int i = 0; i < text.length(); i++) {
      char c = text.charAt(i);
      if (within && c == '"' && i + 1 < text.length() && text.charAt(i + 1) == '"') {
        part.append(c);
        i++;
      } else if (c == '"' && (within || Blanks.strip(part.toString()).isEmpty())) within = !within;
      else if (c == '\n' || c == '\r' || !within && (c == ',' || c == ';' || c == '\t')) {
        add(part, out);
        within = false; // a quote that is never closed ends with its line
      } else part.append(c);
    }
    add(part, out);
    return out;
  }

  private static void add(StringBuilder part, List<String> out) {
    String s = Blanks.strip(part.toString());
    part.setLength(0);
    for (String q : QUOTES)
      if (s.length() > 1 && s.charAt(0) == q.charAt(0) && s.charAt(s.length() - 1) == q.charAt(1))
        s = Blanks.strip(s.substring(1, s.length() - 1));
    if (!s.isEmpty()) out.add(s);
  }

  /** Tags that differ in case or blanks alone are one. */
  private static String key(String tag) {
    StringBuilder b = new StringBuilder();
    String lower = Fold.lower(tag);
    for (int i = 0; i < lower.length(); i++)
      if (!Blanks.isBlank(lower.charAt(i))) b.append(lower.charAt(i));
    return b.toString();
  }

  /**
   * Finds the features whose value in a field is one of the tags.
   *
   * @param field one that the layer has; numbers are compared as they are written plainly
   */
  public Found in(LayerColumns layer, String field) {
    Column column = layer.column(field).orElseThrow();
    Map<String, List<String>> byTag = new LinkedHashMap<>();
    for (String t : tags) byTag.put(key(t), new ArrayList<>());
    layer.all().stream()
        .forEach(
            row -> {
              List<String> ids = byTag.get(key(column.value(row).plain()));
              if (ids != null) ids.add(layer.id(row));
            });
    List<String> features = new ArrayList<>();
    List<String> missing = new ArrayList<>();
    List<String> several = new ArrayList<>();
    for (String t : tags) {
      List<String> ids = byTag.get(key(t));
      features.addAll(ids);
      if (ids.isEmpty()) missing.add(t);
      if (ids.size() > 1) several.add(t);
    }
    return new Found(List.copyOf(features), List.copyOf(missing), List.copyOf(several));
  }
}
