package org.whinridge.app.browser;

import java.nio.ByteBuffer;
import java.nio.charset.StandardCharsets;
import java.util.Map;
import java.util.TreeMap;

/**
 * A TrueType font of a blank and nothing else (tables as in the OpenType specification, ISO/IEC
 * 14496-22). Chromium does not start without a font of the machine; with this one it has none that
 * could draw a sign for the pages.
 */
final class BlankFont {
  private BlankFont() {}

  private static ByteBuffer table(int bytes) {
    return ByteBuffer.allocate(bytes);
  }

  private static ByteBuffer shorts(ByteBuffer b, int... all) {
    for (int s : all) b.putShort((short) s);
    return b;
  }

  /** The font's bytes. */
  static byte[] bytes() {
    Map<String, byte[]> tables = new TreeMap<>();
    ByteBuffer head = table(54).putInt(0x00010000).putInt(0x00010000).putInt(0).putInt(0x5F0F3CF5);
    shorts(head, 11, 1000).putLong(0).putLong(0);
    tables.put("head", shorts(head, 0, 0, 500, 700, 0, 8, 2, 0, 0).array());
    ByteBuffer hhea = table(36).putInt(0x00010000);
    tables.put("hhea", shorts(hhea, 800, -200, 0, 500, 0, 0, 0, 1, 0, 0, 0, 0, 0, 0, 0, 2).array());
    ByteBuffer maxp = table(32).putInt(0x00010000);
    tables.put("maxp", shorts(maxp, 2, 0, 0, 0, 0, 2).array());
    tables.put("hmtx", shorts(table(8), 500, 0, 500, 0).array());
    tables.put("loca", new byte[6]);
    tables.put("glyf", new byte[4]);
    ByteBuffer cmap = shorts(table(44), 0, 1, 3, 1).putInt(12);
    shorts(cmap, 4, 32, 0, 4, 4, 1, 0, 0x20, 0xFFFF, 0, 0x20, 0xFFFF, 1 - 0x20, 1, 0, 0);
    tables.put("cmap", cmap.array());
    tables.put("name", names("Blank", "Regular", "Blank 1", "Blank", "Version 1.0", "Blank"));
    ByteBuffer os2 = shorts(table(96), 4, 500, 400, 5, 0, 650, 600, 0, 75, 650, 600, 0, 350, 50);
    shorts(os2, 300, 0).put(new byte[10]).putInt(1).putInt(0).putInt(0).putInt(0).putInt(0);
    shorts(os2, 0x40, 0x20, 0x20, 800, -200, 0, 800, 200).putInt(1).putInt(0);
    tables.put("OS/2", shorts(os2, 500, 700, 0, 0x20, 0).array());
    ByteBuffer post = table(32).putInt(0x00030000).putInt(0);
    tables.put("post", shorts(post, -100, 50).array());
    return font(tables);
  }

  private static byte[] names(String... all) {
    ByteBuffer text = table(500);
    ByteBuffer records = shorts(table(6 + 12 * all.length), 0, all.length, 6 + 12 * all.length);
    for (int i = 0; i < all.length; i++) {
      byte[] s = all[i].getBytes(StandardCharsets.UTF_16BE);
      shorts(records, 3, 1, 0x409, i + 1, s.length, text.position());
      text.put(s);
    }
    return table(records.position() + text.position())
        .put(records.array())
        .put(text.array(), 0, text.position())
        .array();
  }

  private static byte[] font(Map<String, byte[]> tables) {
    ByteBuffer out = table(8_000).putInt(0x00010000);
    int n = tables.size();
    int power = Integer.highestOneBit(n);
    shorts(out, n, 16 * power, Integer.numberOfTrailingZeros(power), 16 * (n - power));
    int at = 12 + 16 * n;
    for (Map.Entry<String, byte[]> t : tables.entrySet()) {
      byte[] padded = java.util.Arrays.copyOf(t.getValue(), (t.getValue().length + 3) / 4 * 4);
      int sum = 0;
      for (ByteBuffer b = ByteBuffer.wrap(padded); b.hasRemaining(); ) sum += b.getInt();
      out.put(t.getKey().getBytes(StandardCharsets.US_ASCII));
      out.putInt(sum).putInt(at).putInt(t.getValue().length);
      out.duplicate().position(at).put(padded);
      at += padded.length;
    }
    return java.util.Arrays.copyOf(out.array(), at);
  }
}
