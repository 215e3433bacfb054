package org.whinridge.app;

import java.nio.ByteBuffer;
import java.nio.ByteOrder;
import java.nio.charset.StandardCharsets;

/** The bytes of a Shapefile of one point, after the published description, from memory. */
final class Shp {
  private Shp() {}

  static byte[] point(double x, double y) {
    ByteBuffer b = ByteBuffer.allocate(128);
    b.putInt(0, 9994).putInt(24, 64);
    b.order(ByteOrder.LITTLE_ENDIAN).putInt(28, 1000).putInt(32, 1);
    b.putDouble(36, x).putDouble(44, y).putDouble(52, x).putDouble(60, y);
    b.order(ByteOrder.BIG_ENDIAN).putInt(100, 1).putInt(104, 10);
    b.order(ByteOrder.LITTLE_ENDIAN).putInt(108, 1).putDouble(112, x).putDouble(120, y);
    return b.array();
  }

  static byte[] dbf(String value) {
    ByteBuffer b = ByteBuffer.allocate(32 + 32 + 1 + 11 + 1).order(ByteOrder.LITTLE_ENDIAN);
    b.put(0, (byte) 3).put(1, (byte) 124).put(2, (byte) 1).put(3, (byte) 1);
    b.putInt(4, 1).putShort(8, (short) 65).putShort(10, (short) 11);
    b.position(32);
    b.put("tag".getBytes(StandardCharsets.US_ASCII));
    b.put(32 + 11, (byte) 'C').put(32 + 16, (byte) 10);
    b.put(64, (byte) 13);
    b.position(65);
    b.put((" " + String.format("%-10s", value)).getBytes(StandardCharsets.US_ASCII));
    b.put((byte) 26);
    return b.array();
  }
}
