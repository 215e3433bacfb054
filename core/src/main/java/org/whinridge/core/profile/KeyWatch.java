package org.whinridge.core.profile;

import java.util.ArrayList;
import java.util.List;
import org.whinridge.core.said.Said;

/**
 * Watches a column for values that come more than once, in 12 bytes a value: 64-bit hashes in an
 * open table with the row of their first appearance. It gives up once the column is plainly no key.
 */
final class KeyWatch {
  private static final int MOST_TOLD = 20;
  private long[] hashes = new long[1024];
  private int[] rows = new int[1024];
  private int size;
  private int seen;
  private int repeated;
  private boolean given;
  private final List<Said> told = new ArrayList<>();

  void see(String value, int row) {
    if (given) return;
    seen++;
    if (seen > 500 && repeated > seen / 20) {
      given = true;
      hashes = new long[0];
      rows = new int[0];
      return;
    }
    if (2 * size > hashes.length) grow();
    long h = hash(value);
    int at = slot(h, hashes);
    if (hashes[at] == h) {
      repeated++;
      if (told.size() < MOST_TOLD)
        told.add(Said.of("finding.twice", "value", value, "first", rows[at], "second", row));
      return;
    }
    hashes[at] = h;
    rows[at] = row;
    size++;
  }

  /** Whether the column may be a key: filled nearly always, hardly a value twice. */
  boolean mayBeKey(int count) {
    return !given && seen > 1 && seen >= 0.9 * count && repeated <= seen / 20;
  }

  int repeated() {
    return repeated;
  }

  List<Said> told() {
    return told;
  }

  private void grow() {
    long[] before = hashes;
    int[] beforeRows = rows;
    hashes = new long[before.length * 2];
    rows = new int[hashes.length];
    for (int i = 0; i < before.length; i++)
      if (before[i] != 0) {
        int at = slot(before[i], hashes);
        hashes[at] = before[i];
        rows[at] = beforeRows[i];
      }
  }

  private static int slot(long h, long[] table) {
    int at = (int) (h >>> 32 ^ h) & table.length - 1;
    while (table[at] != 0 && table[at] != h) at = at + 1 & table.length - 1;
    return at;
  }

  /** FNV-1a of 64 bits with a last mixing; never 0. */
  private static long hash(String s) {
    long h = 0xcbf29ce484222325L;
    for (int i = 0; i < s.length(); i++) h = (h ^ s.charAt(i)) * 0x100000001b3L;
    h ^= h >>> 29;
    h *= 0xbf58476d1ce4e5b9L;
    h ^= h >>> 32;
    return h == 0 ? 1 : h;
  }
}
