package org.whinridge.demo;

import java.awt.BasicStroke;
import java.awt.Color;
import java.awt.Font;
import java.awt.GradientPaint;
import java.awt.Graphics2D;
import java.awt.Polygon;
import java.awt.RenderingHints;
import java.awt.image.BufferedImage;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.util.Random;
import javax.imageio.ImageIO;

/**
 * Drawn photos: a drain with a structure under a sky, the asset's tag and the day painted on. No
 * EXIF; that is the device's business.
 */
public final class DemoPhoto {
  private DemoPhoto() {}

  /** A JPEG of 1024 × 768 pixels. */
  public static byte[] jpeg(String tag, String kind, String day) {
    BufferedImage image = new BufferedImage(1024, 768, BufferedImage.TYPE_INT_RGB);
    Graphics2D g = image.createGraphics();
    g.setRenderingHint(RenderingHints.KEY_ANTIALIASING, RenderingHints.VALUE_ANTIALIAS_ON);
    Random r = new Random(tag.hashCode());
    g.setPaint(new GradientPaint(0, 0, new Color(0x9FB4BF), 0, 400, new Color(0xE4E2D4)));
    g.fillRect(0, 0, 1024, 768);
    g.setColor(new Color(0x7C8A5C));
    g.fillRect(0, 380, 1024, 388);
    g.setColor(new Color(0x93A06D));
    Polygon bank = new Polygon();
    for (int x = 0; x <= 1024; x += 32)
      bank.addPoint(x, 360 + (int) (18 * Math.sin(x / 140.0 + r.nextInt(3))));
    bank.addPoint(1024, 470);
    bank.addPoint(0, 470);
    g.fill(bank);
    g.setPaint(new GradientPaint(0, 470, new Color(0x5D7480), 0, 768, new Color(0x33454F)));
    g.fillPolygon(new int[] {380, 640, 980, 40}, new int[] {450, 450, 768, 768}, 4);
    g.setColor(new Color(0x8A6A55));
    g.fillRect(330, 300, 360, 210);
    g.setColor(new Color(0x5E4637));
    g.setStroke(new BasicStroke(2));
    for (int y = 300; y < 510; y += 21) g.drawLine(330, y, 690, y);
    g.setColor(new Color(0x2B3338));
    if (kind.contains("sluice") || kind.contains("penstock")) g.fillRect(440, 360, 140, 150);
    else g.fillOval(430, 370, 160, 140);
    g.setColor(new Color(0xF2EFE4));
    g.fillRect(340, 312, 200, 44);
    g.setColor(new Color(0x1F2A30));
    g.setFont(new Font(Font.SANS_SERIF, Font.BOLD, 28));
    g.drawString(tag, 352, 344);
    g.setFont(new Font(Font.SANS_SERIF, Font.PLAIN, 24));
    g.setColor(Color.WHITE);
    g.drawString(kind.replace('_', ' ') + " · " + day, 24, 744);
    g.setStroke(new BasicStroke(3));
    g.setColor(new Color(0x6E7B48));
    for (int i = 0; i < 90; i++) {
      int x = r.nextInt(1024);
      int y = 520 + r.nextInt(240);
      if (x < 300 - (y - 500) / 3 || x > 720 + (y - 500))
        g.drawLine(x, y, x + r.nextInt(14) - 7, y - 30 - r.nextInt(40));
    }
    g.dispose();
    ByteArrayOutputStream out = new ByteArrayOutputStream();
    try {
      ImageIO.write(image, "jpeg", out);
    } catch (IOException e) {
      throw new UncheckedIOException(e); // memory only: can't happen
    }
    return out.toByteArray();
  }
}
