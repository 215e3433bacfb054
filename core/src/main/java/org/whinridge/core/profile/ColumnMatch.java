package org.whinridge.core.profile;

import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import org.whinridge.core.layer.Field;
import org.whinridge.core.layer.Schema;

/** Which field of a layer a column of a file belongs into, and which field names a feature. */
public final class ColumnMatch {
  /** Names that a tag goes by, the usual first. Common practice, no source. */
  private static final List<String> TAGS = List.of("tag", "ref", "asset_id", "code", "barcode");

  /** Names of what a feature is called by, the usual first. Common practice, no source. */
  private static final List<String> CAPTIONS =
      List.of("tag", "ref", "asset_id", "name", "title", "kind", "beat", "code", "photo");

  private static final List<String> VISITORS =
      List.of("visitor", "inspector", "inspected_by", "visited_by", "surveyor");

  private static final int DBF_NAME = 10;

  private ColumnMatch() {}

  /**
   * The field for each column by its storage name or label, "" for none; a field is given once, to
   * the first column that fits. A name of ten characters fits a longer one that begins so, as
   * Shapefiles cut them.
   *
   * @param columns the names in the file, in order
   */
  public static Map<String, String> fields(List<String> columns, Schema schema) {
    Map<String, String> out = new LinkedHashMap<>();
    for (String c : columns) {
      String hit = field(c, schema);
      out.put(c, out.containsValue(hit) ? "" : hit);
    }
    return out;
  }

  private static String field(String column, Schema schema) {
    String name = Field.nameFrom(column);
    for (Field f : schema.fields())
      if (f.name().equalsIgnoreCase(name)
          || f.label().equalsIgnoreCase(column)
          || f.name().length() > DBF_NAME && name.length() == DBF_NAME && f.name().startsWith(name))
        return f.name();
    return "";
  }

  /**
   * The column that says which feature a row is: the one for the layer's tag, else the first of
   * those whose values are unique; "" for none.
   *
   * @param fields what {@link #fields} gave
   * @param unique columns of the file with a value of its own in each row
   */
  public static String key(Map<String, String> fields, List<String> unique, Schema schema) {
    for (Map.Entry<String, String> e : fields.entrySet())
      if (!schema.tagField().isEmpty() && e.getValue().equals(schema.tagField())) return e.getKey();
    for (String c : unique) if (!fields.getOrDefault(c, "").isEmpty()) return c;
    return "";
  }

  /**
   * The schema with a tag and captions by its fields' names, if it has neither: no list could name
   * its features.
   */
  public static Schema named(Schema s) {
    return s.tagField().isEmpty() && s.captionFields().isEmpty()
        ? new Schema(s.kind(), s.fields(), tag(s.fields()), captions(s.fields()))
        : s;
  }

  /** The field that looks like the tag, by its name; "" for none. */
  public static String tag(List<Field> fields) {
    return fields.stream().map(Field::name).filter(TAGS::contains).findFirst().orElse("");
  }

  /**
   * The field that tells features apart: by its name, else the first of those without a value
   * twice, a name with "id", "no", "nr" or "code" in it before others; "" for none.
   *
   * @param unique fields whose values were seen to be all different
   */
  public static String tag(List<Field> fields, List<Field> unique) {
    String named = tag(fields);
    if (!named.isEmpty() || unique.isEmpty()) return named;
    return unique.stream()
        .filter(f -> f.name().matches("(.*_)?(id|no|nr|num|number|code|key|ref)(_.*)?"))
        .findFirst()
        .orElse(unique.get(0))
        .name();
  }

  /** As {@link #captions(List)}; a tag is the first of them, whatever its name. */
  public static List<String> captions(List<Field> fields, String tag) {
    List<String> out = new java.util.ArrayList<>();
    if (!tag.isEmpty()) out.add(tag);
    for (String c : captions(fields)) {
      // the first of all stands for a name only where there is nothing better
      boolean named = CAPTIONS.contains(c) || out.isEmpty();
      if (named && !out.contains(c) && out.size() < 2) out.add(c);
    }
    return List.copyOf(out);
  }

  /**
   * The column that says who made a visit, by its name; "" for none. Common practice, no source.
   */
  public static String visitor(List<String> columns) {
    return columns.stream()
        .filter(c -> VISITORS.contains(Field.nameFrom(c)))
        .findFirst()
        .orElse("");
  }

  /** The fields that name a feature: at most two by their names, else the first of all. */
  public static List<String> captions(List<Field> fields) {
    List<String> out =
        CAPTIONS.stream()
            .filter(n -> fields.stream().anyMatch(f -> f.name().equals(n)))
            .limit(2)
            .toList();
    return !out.isEmpty() || fields.isEmpty() ? out : List.of(fields.get(0).name());
  }
}
