package org.whinridge.formats.tiles;

/**
 * What was thinned, as small squares: all squares of one legend entry and one strength are one
 * feature of many parts, so that a map asks for their look once and draws them at one go.
 */
final class Squares {
  /** The strengths: about one feature, 3, 10, 32, 100 and more. */
  private static final int STRENGTHS = 5;

  private final One[] all;

  /** Squares of one entry and strength. */
  static final class One {
    final int entry;
    final int strength;
    final Bytes commands = new Bytes();
    long features;
    private int atX;
    private int atY;

    private One(int entry, int strength) {
      this.entry = entry;
      this.strength = strength;
    }

    /** About how many features each square stands for. */
    long each() {
      return Math.round(Math.pow(10, strength / 2.0));
    }

    private void move(int x, int y) {
      commands.zigzag(x - atX);
      commands.zigzag(y - atY);
      atX = x;
      atY = y;
    }

    private void add(int x, int y, int count) {
      int half = 8 + 2 * strength;
      commands.varint(1 << 3 | 1);
      move(x - half, y - half);
      commands.varint(3 << 3 | 2);
      move(x + half, y - half);
      move(x + half, y + half);
      move(x - half, y + half);
      commands.varint(1 << 3 | 7);
      features += count;
    }
  }

  Squares(int entries) {
    all = new One[entries * STRENGTHS];
  }

  /** Adds a square around a place of the grid for so many features. */
  void add(int entry, int x, int y, int count) {
    int strength = (int) Math.min(STRENGTHS - 1, Math.round(2 * Math.log10(Math.max(1, count))));
    int at = entry * STRENGTHS + strength;
    if (all[at] == null) all[at] = new One(entry, strength);
    all[at].add(x, y, count);
  }

  /** Those that have any, by entry and strength; the others are null. */
  One[] all() {
    return all;
  }
}
