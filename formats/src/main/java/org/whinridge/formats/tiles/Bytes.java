package org.whinridge.formats.tiles;

import java.nio.charset.StandardCharsets;
import java.util.Arrays;

/** Bytes in the encoding of Protocol Buffers, which vector tiles use. */
final class Bytes {
  byte[] bytes = new byte[4096];
  int length;

  private void room(int n) {
    if (length + n > bytes.length)
      bytes = Arrays.copyOf(bytes, Math.max(2 * bytes.length, length + n));
  }

  void varint(long v) {
    room(10);
    long n = v;
    while ((n & ~0x7fL) != 0) {
      bytes[length++] = (byte) (n & 0x7f | 0x80);
      n >>>= 7;
    }
    bytes[length++] = (byte) n;
  }

  /** A whole number of either sign: small ones stay short. */
  void zigzag(int v) {
    varint((v << 1 ^ v >> 31) & 0xffffffffL);
  }

  void field(int number, int wire) {
    varint((long) number << 3 | wire);
  }

  void number(int field, long v) {
    field(field, 0);
    varint(v);
  }

  void message(int field, Bytes b) {
    field(field, 2);
    varint(b.length);
    room(b.length);
    System.arraycopy(b.bytes, 0, bytes, length, b.length);
    length += b.length;
  }

  void text(int field, String s) {
    byte[] u = s.getBytes(StandardCharsets.UTF_8);
    field(field, 2);
    varint(u.length);
    room(u.length);
    System.arraycopy(u, 0, bytes, length, u.length);
    length += u.length;
  }

  void single(int field, float f) {
    field(field, 5);
    room(4);
    int n = Float.floatToIntBits(f);
    for (int i = 0; i < 4; i++) bytes[length++] = (byte) (n >>> 8 * i);
  }

  void clear() {
    length = 0;
  }

  byte[] copy() {
    return Arrays.copyOf(bytes, length);
  }
}
