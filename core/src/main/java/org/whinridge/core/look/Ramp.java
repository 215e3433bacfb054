package org.whinridge.core.look;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import org.whinridge.core.said.Said;
import org.whinridge.core.text.Word;

/**
 * Rows of colours to choose classes' colours from. They were made for this product: chosen so that
 * neighbours stay apart for people without red or green cones, which a test computes. From light to
 * dark they are mixed in Oklab; the two-sided ones have their light middle between two dark ends;
 * the ones for codes have no order.
 */
public enum Ramp implements Word {
  PEAT("peat", Kind.RISING, "#f2e6c9", "#d7a763", "#a3622c", "#4b2410"),
  TIDE("tide", Kind.RISING, "#dfeeee", "#8fc0cf", "#3f7fa3", "#12344f"),
  HEATH("heath", Kind.RISING, "#f0e3ee", "#c79bc6", "#8a559b", "#3d1c52"),
  FEN("fen", Kind.RISING, "#f4efb6", "#a9c06a", "#4c8a62", "#123f47"),
  WORN("worn", Kind.TWO_SIDED, "#1f5c80", "#7fb2c4", "#efe9d2", "#df9a4c", "#8f3413"),
  EBB("ebb", Kind.TWO_SIDED, "#4d2a66", "#a98bbd", "#f0ecdf", "#8fb58a", "#1f5a45"),
  ASSORTED(
      "assorted",
      Kind.CODES,
      "#1d4f78",
      "#e08f2c",
      "#7fc3d6",
      "#8a2f1f",
      "#e9d66b",
      "#2c8064",
      "#b685bd",
      "#2a2a33",
      "#c9b79c");

  /** What a row of colours is good for. */
  public enum Kind {
    /** From little to much. */
    RISING,
    /** From one end over a middle to the other. */
    TWO_SIDED,
    /** Codes without order. */
    CODES
  }

  private final String id;
  private final Kind kind;
  private final List<Colour> stops;

  Ramp(String id, Kind kind, String... stops) {
    this.id = id;
    this.kind = kind;
    List<Colour> cs = new ArrayList<>();
    for (String s : stops) cs.add(Colour.of(s));
    this.stops = List.copyOf(cs);
  }

  /** The word in data. */
  @Override
  public String id() {
    return id;
  }

  /** The name for people. */
  public Said said() {
    return Said.of("ramp." + id);
  }

  /** What it is good for. */
  public Kind kind() {
    return kind;
  }

  /** The row with that word. */
  public static Optional<Ramp> of(String id) {
    return Word.of(values(), id);
  }

  /**
   * So many colours. Rising and two-sided rows are spread over their length; one colour is the
   * strong end of a rising row. Codes beyond the row's length begin it again, lighter.
   *
   * @param n 1 or more
   */
  public List<Colour> colours(int n) {
    List<Colour> out = new ArrayList<>(n);
    for (int i = 0; i < n; i++)
      if (kind == Kind.CODES) out.add(code(i));
      else
        out.add(
            at(
                n == 1
                    ? 1
                    : kind == Kind.RISING ? 0.12 + 0.88 * i / (n - 1) : (double) i / (n - 1)));
    return out;
  }

  private Colour code(int i) {
    Colour c = stops.get(i % stops.size());
    int round = i / stops.size();
    if (round == 0) return c;
    double[] p = Seen.oklab(c);
    double towards = Math.min(0.75, 0.3 * round);
    return Seen.ofOklab(p[0] + (0.95 - p[0]) * towards, p[1] * (1 - towards), p[2] * (1 - towards));
  }

  private Colour at(double t) {
    double along = t * (stops.size() - 1);
    int i = Math.min(stops.size() - 2, (int) along);
    double f = along - i;
    double[] a = Seen.oklab(stops.get(i));
    double[] b = Seen.oklab(stops.get(i + 1));
    return Seen.ofOklab(
        a[0] + (b[0] - a[0]) * f, a[1] + (b[1] - a[1]) * f, a[2] + (b[2] - a[2]) * f);
  }
}
