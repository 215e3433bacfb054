package org.whinridge.core.read;

import java.util.Arrays;
import java.util.BitSet;

/**
 * A long row of numbers in pages, so that a newer state shares with the older one every page that
 * it did not change. A state that was given away is never changed: {@link #newer} makes the next.
 *
 * @param <A> the array that a page is
 */
final class Pages<A> {
  static final int BITS = 12;

  /** Rows of a page; blocks of {@link Filter} never cross its end. */
  static final int SIZE = 1 << BITS;

  private static final int MASK = SIZE - 1;

  /** Gives a copy of a page with another length; new places hold what stands for nothing. */
  interface Resize<A> {
    A to(A page, int length);
  }

  private final Resize<A> resize;
  private final A none;
  private Object[] pages;
  private final BitSet own = new BitSet();

  private Pages(A none, Resize<A> resize, Object[] pages) {
    this.none = none;
    this.resize = resize;
    this.pages = pages;
  }

  static Pages<double[]> ofNumbers() {
    return new Pages<>(
        new double[0],
        (p, n) -> {
          double[] d = Arrays.copyOf(p, n);
          if (n > p.length) Arrays.fill(d, p.length, n, Double.NaN);
          return d;
        },
        new Object[4]);
  }

  static Pages<int[]> ofInts() {
    return new Pages<>(new int[0], Arrays::copyOf, new Object[4]);
  }

  static Pages<long[]> ofLongs() {
    return new Pages<>(new long[0], Arrays::copyOf, new Object[4]);
  }

  static Pages<byte[][]> ofBytes() {
    return new Pages<>(new byte[0][], Arrays::copyOf, new Object[4]);
  }

  /** Where a row stands in its page. */
  static int in(int row) {
    return row & MASK;
  }

  /** How many pages so many rows take. */
  static int count(int rows) {
    return (rows + MASK) >>> BITS;
  }

  /** The page of a row, to be read; for rows that were never set an empty one. */
  @SuppressWarnings("unchecked")
  A at(int row) {
    int p = row >>> BITS;
    return p < pages.length && pages[p] != null ? (A) pages[p] : none;
  }

  /**
   * The page of a row, to be written into: made, or copied when it is shared with an older state.
   */
  @SuppressWarnings("unchecked")
  A own(int row) {
    int p = row >>> BITS;
    if (p >= pages.length) pages = Arrays.copyOf(pages, p + p / 2 + 1);
    if (!own.get(p)) {
      pages[p] = resize.to(pages[p] == null ? none : (A) pages[p], SIZE);
      own.set(p);
    }
    return (A) pages[p];
  }

  /** Puts a whole page in, as it was read from a file. */
  void put(int page, A content) {
    if (page >= pages.length) pages = Arrays.copyOf(pages, page + page / 2 + 1);
    pages[page] = content;
  }

  /** The next state, which shares all pages until they are written into. */
  Pages<A> newer() {
    return new Pages<>(none, resize, pages.clone());
  }

  /** Ends the writing: the last page gives back what no row uses. */
  void end(int rows) {
    own.clear();
    int p = rows >>> BITS;
    if (in(rows) != 0 && p < pages.length && pages[p] != null)
      pages[p] = resize.to(at(p << BITS), in(rows));
  }

  /** How many places of rows it holds. */
  long places(int rows) {
    long n = 0;
    for (int p = 0; p < count(rows) && p < pages.length; p++)
      if (pages[p] != null) n += p == rows >>> BITS ? in(rows) : SIZE;
    return n;
  }
}
