package org.whinridge.core.visit;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import org.whinridge.core.layer.Code;
import org.whinridge.core.said.Said;
import org.whinridge.core.value.Value;

/**
 * The answers of a visit outside of rows, or of one row, by their local place ({@link
 * ExecutableForm#local}). An answer that is not asked is kept aside in {@link #values}.
 */
final class Answers {
  final Value[] values;
  final Provenance[] provenance;
  final boolean[] asked;

  /** What a look-up came to when it gave no value, in words; "" for nothing to tell. */
  final Said[] notes;

  /** A newer value than the person's, offered by a source that follows its inputs; else null. */
  final Prefill.First[] offers;

  /** Whether the formula gave a number that is not finite. */
  final boolean[] notFinite;

  /** The codes that do not fit the other answers. */
  final List<List<Code>> unfit = new ArrayList<>();

  final List<List<OpenPoint>> points = new ArrayList<>();

  /** The question's part of the sheet view as it was last drawn; null when that is no longer so. */
  final String[] drawn;

  /** What was told last of the question to whoever asks for changes; null for nothing yet. */
  final String[] told;

  /** Whose value must be worked out again. */
  final boolean[] valueChanged;

  /** Whose points must be found again. */
  final boolean[] pointsChanged;

  Answers(int size) {
    values = new Value[size];
    provenance = new Provenance[size];
    asked = new boolean[size];
    notes = new Said[size];
    offers = new Prefill.First[size];
    notFinite = new boolean[size];
    drawn = new String[size];
    told = new String[size];
    valueChanged = new boolean[size];
    pointsChanged = new boolean[size];
    Arrays.fill(values, Value.EMPTY);
    Arrays.fill(provenance, Provenance.NONE);
    Arrays.fill(notes, Said.NONE);
    for (int i = 0; i < size; i++) {
      points.add(List.of());
      unfit.add(List.of());
    }
  }

  void put(int i, Value v, Provenance p) {
    values[i] = v;
    provenance[i] = v.isEmpty() && p.kind() != Provenance.Kind.TYPED ? Provenance.NONE : p;
    drawn[i] = null;
  }

  Value visible(int i) {
    return asked[i] ? values[i] : Value.EMPTY;
  }

  /** What a person did, so that it can be taken back; all else follows from it. */
  record Remembered(
      Value[] values, Provenance[] provenance, Said[] notes, Prefill.First[] offers) {}

  /** The last that was remembered: as long as nothing has changed, it serves again. */
  private Remembered last;

  Remembered remember() {
    boolean same =
        last != null
            && same(values, last.values)
            && same(provenance, last.provenance)
            && same(notes, last.notes)
            && same(offers, last.offers);
    if (!same)
      last = new Remembered(values.clone(), provenance.clone(), notes.clone(), offers.clone());
    return last;
  }

  private static boolean same(Object[] a, Object[] b) {
    for (int i = 0; i < a.length; i++) if (a[i] != b[i]) return false;
    return true;
  }

  void restore(Remembered then) {
    System.arraycopy(then.values, 0, values, 0, values.length);
    System.arraycopy(then.provenance, 0, provenance, 0, values.length);
    System.arraycopy(then.notes, 0, notes, 0, values.length);
    System.arraycopy(then.offers, 0, offers, 0, values.length);
    Arrays.fill(drawn, null);
  }
}
