package org.whinridge.app.shell;

import com.google.zxing.BarcodeFormat;
import com.google.zxing.EncodeHintType;
import com.google.zxing.WriterException;
import com.google.zxing.common.BitMatrix;
import com.google.zxing.qrcode.QRCodeWriter;
import com.google.zxing.qrcode.decoder.ErrorCorrectionLevel;
import java.nio.charset.StandardCharsets;
import java.util.Base64;
import java.util.Map;

/** An address as a QR code (ISO/IEC 18004), which a phone's camera reads. */
public final class QrCode {
  private QrCode() {}

  /** The code as an SVG picture within an address of its own ({@code data:}). */
  public static String picture(String text) {
    BitMatrix m = modules(text);
    StringBuilder d = new StringBuilder();
    for (int y = 0; y < m.getHeight(); y++)
      for (int x = 0; x < m.getWidth(); x++)
        if (m.get(x, y)) d.append('M').append(x).append(' ').append(y).append("h1v1h-1z");
    String svg =
        "<svg xmlns=\"http://www.w3.org/2000/svg\" viewBox=\"0 0 "
            + m.getWidth()
            + " "
            + m.getHeight()
            + "\" shape-rendering=\"crispEdges\"><path fill=\"#fff\" d=\"M0 0h"
            + m.getWidth()
            + "v"
            + m.getHeight()
            + "H0z\"/><path d=\""
            + d
            + "\"/></svg>";
    return "data:image/svg+xml;base64,"
        + Base64.getEncoder().encodeToString(svg.getBytes(StandardCharsets.UTF_8));
  }

  /** The code in letters for a console, two rows of it in each line. */
  public static String text(String text) {
    BitMatrix m = modules(text);
    StringBuilder out = new StringBuilder();
    for (int y = 0; y < m.getHeight(); y += 2) {
      out.append("  ");
      for (int x = 0; x < m.getWidth(); x++) {
        boolean above = m.get(x, y);
        boolean below = y + 1 < m.getHeight() && m.get(x, y + 1);
        // light letters on a dark console: a module that is set stays dark
        out.append(above ? below ? ' ' : '\u2584' : below ? '\u2580' : '\u2588');
      }
      out.append('\n');
    }
    return out.toString();
  }

  private static BitMatrix modules(String text) {
    try {
      return new QRCodeWriter()
          .encode(
              text,
              BarcodeFormat.QR_CODE,
              0,
              0,
              Map.of(
                  EncodeHintType.ERROR_CORRECTION,
                  ErrorCorrectionLevel.M,
                  EncodeHintType.MARGIN,
                  4));
    } catch (WriterException e) {
      throw new IllegalArgumentException("too long for a QR code: " + text.length(), e);
    }
  }
}
