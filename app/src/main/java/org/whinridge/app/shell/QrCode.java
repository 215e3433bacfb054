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
    BitMatrix m;
    try {
      m =
          new QRCodeWriter()
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
}
