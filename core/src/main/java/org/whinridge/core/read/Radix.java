package org.whinridge.core.read;

/** Sorts numbers that are not negative, with what belongs to them, by their digits of 11 bits. */
final class Radix {
  private static final int BITS = 11;

  private Radix() {}

  static void sort(long[] keys, int[] with) {
    int n = keys.length;
    long all = 0;
    for (long k : keys) all |= k;
    long[] a = keys;
    int[] b = with;
    long[] otherKeys = new long[n];
    int[] otherWith = new int[n];
    for (int shift = 0; shift < 63 && all >>> shift != 0; shift += BITS) {
      int[] at = new int[(1 << BITS) + 1];
      for (long k : a) at[(int) (k >>> shift & (1 << BITS) - 1) + 1]++;
      for (int i = 1; i < at.length; i++) at[i] += at[i - 1];
      for (int i = 0; i < n; i++) {
        int to = at[(int) (a[i] >>> shift & (1 << BITS) - 1)]++;
        otherKeys[to] = a[i];
        otherWith[to] = b[i];
      }
      long[] k = a;
      a = otherKeys;
      otherKeys = k;
      int[] w = b;
      b = otherWith;
      otherWith = w;
    }
    if (a != keys) {
      System.arraycopy(a, 0, keys, 0, n);
      System.arraycopy(b, 0, with, 0, n);
    }
  }
}
