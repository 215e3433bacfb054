package org.whinridge.core.round;

import java.util.ArrayList;
import java.util.List;
import org.whinridge.core.layer.Code;
import org.whinridge.core.layer.Feature;
import org.whinridge.core.layer.Field;
import org.whinridge.core.layer.Schema;
import org.whinridge.core.value.Value;

/**
 * What a selection of a layer's features is made of, by the fields with a code list: its kinds, its
 * conditions.
 *
 * @param features how many there are
 * @param fields by the layer's fields with codes, in the order of the fields
 */
public record SelectionSummary(int features, List<OfField> fields) {
  /** A list longer than this is not counted by its codes. */
  static final int MOST_CODES = 40;

  public SelectionSummary {
    fields = List.copyOf(fields);
  }

  /**
   * How often each code of a field occurs.
   *
   * @param codes those that occur, in the order of the list
   * @param other values that the list does not have
   * @param empty features without a value
   */
  public record OfField(String field, String label, List<Counted> codes, int other, int empty) {
    public OfField {
      codes = List.copyOf(codes);
    }
  }

  /** A code, its label, and how often it occurs. */
  public record Counted(String code, String label, int n) {}

  /**
   * Counts features of a layer.
   *
   * @param most so many fields at most
   */
  public static SelectionSummary of(Schema schema, List<Feature> features, int most) {
    return new SelectionSummary(
        features.size(),
        schema.fields().stream()
            .filter(f -> !f.codes().isEmpty() && f.codes().size() <= MOST_CODES)
            .limit(most)
            .map(f -> counted(f, features))
            .toList());
  }

  private static OfField counted(Field field, List<Feature> features) {
    int[] n = new int[field.codes().size()];
    int other = 0;
    int empty = 0;
    for (Feature f : features) {
      Value v = f.value(field.name());
      if (v.isEmpty()) {
        empty++;
        continue;
      }
      int at = place(field.codes(), v.plain());
      if (at < 0) other++;
      else n[at]++;
    }
    List<Counted> codes = new ArrayList<>();
    for (int i = 0; i < n.length; i++)
      if (n[i] > 0)
        codes.add(new Counted(field.codes().get(i).code(), field.codes().get(i).label(), n[i]));
    return new OfField(field.name(), field.label(), codes, other, empty);
  }

  private static int place(List<Code> codes, String plain) {
    for (int i = 0; i < codes.size(); i++) if (codes.get(i).code().equals(plain)) return i;
    return -1;
  }
}
