package org.whinridge.demo;

import java.awt.BasicStroke;
import java.awt.Color;
import java.awt.Graphics2D;
import java.awt.Polygon;
import java.awt.RenderingHints;
import java.awt.geom.Path2D;
import java.awt.image.BufferedImage;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.util.Random;
import javax.imageio.ImageIO;

/**
 * The drawn reference pictures of the board's forms, by name: "wall-1" to "wall-5" and "bank-1" to
 * "bank-5" for grades of condition, "defect-…" for kinds of defects, "cover-…" for what covers a
 * washland, "silt" and "bearing" for how to measure.
 */
public final class OstreyDrawings {
  private static final int W = 480;
  private static final int H = 320;
  private static final Color SKY = new Color(0xE4E2D4);
  private static final Color EARTH = new Color(0x93A06D);
  private static final Color SOIL = new Color(0x8A6A55);
  private static final Color DARK = new Color(0x33454F);
  private static final Color WATER = new Color(0x5D7480);
  private static final Color MARK = new Color(0x94451F);

  private final Graphics2D g;
  private final Random r;

  private OstreyDrawings(Graphics2D g, String name) {
    this.g = g;
    this.r = new Random(name.hashCode());
  }

  /**
   * A JPEG of 480 × 320 pixels.
   *
   * @throws IllegalArgumentException when there is no picture of that name
   */
  public static byte[] jpeg(String name) {
    BufferedImage image = new BufferedImage(W, H, BufferedImage.TYPE_INT_RGB);
    Graphics2D g = image.createGraphics();
    g.setRenderingHint(RenderingHints.KEY_ANTIALIASING, RenderingHints.VALUE_ANTIALIAS_ON);
    g.setColor(SKY);
    g.fillRect(0, 0, W, H);
    new OstreyDrawings(g, name).draw(name);
    g.dispose();
    ByteArrayOutputStream out = new ByteArrayOutputStream();
    try {
      ImageIO.write(image, "jpeg", out);
    } catch (IOException e) {
      throw new UncheckedIOException(e); // memory only: can't happen
    }
    return out.toByteArray();
  }

  private void draw(String name) {
    int dash = name.indexOf('-');
    String kind = dash < 0 ? name : name.substring(0, dash);
    String of = name.substring(dash + 1);
    switch (kind) {
      case "wall" -> wall(Integer.parseInt(of));
      case "bank" -> bank(Integer.parseInt(of));
      case "cover" -> cover(of);
      case "silt" -> silt();
      case "bearing" -> bearing();
      case "defect" -> defect(of);
      default -> throw new IllegalArgumentException("no drawing is called " + name);
    }
  }

  private void line(Color c, float width, int... xy) {
    g.setColor(c);
    g.setStroke(new BasicStroke(width, BasicStroke.CAP_ROUND, BasicStroke.JOIN_ROUND));
    for (int i = 0; i + 3 < xy.length; i += 2) g.drawLine(xy[i], xy[i + 1], xy[i + 2], xy[i + 3]);
  }

  private void area(Color c, int... xy) {
    Polygon p = new Polygon();
    for (int i = 0; i < xy.length; i += 2) p.addPoint(xy[i], xy[i + 1]);
    g.setColor(c);
    g.fill(p);
  }

  /** A head wall of brick with its opening, whole. */
  private void brick() {
    area(EARTH, 0, 90, W, 90, W, H, 0, H);
    g.setColor(SOIL);
    g.fillRect(60, 60, 360, 210);
    for (int row = 0; row < 10; row++) {
      line(new Color(0x5E4637), 1.5f, 60, 60 + row * 21, 420, 60 + row * 21);
      for (int x = 60 + (row % 2) * 22; x < 420; x += 44)
        line(new Color(0x5E4637), 1.5f, x, 60 + row * 21, x, 81 + row * 21);
    }
    g.setColor(new Color(0x2B3338));
    g.fillOval(180, 130, 120, 120);
    area(WATER, 0, 270, W, 270, W, H, 0, H);
  }

  private void crack(int x, int y, int length) {
    int[] xy = new int[2 * 7];
    for (int i = 0; i < 7; i++) {
      xy[2 * i] = x + r.nextInt(15) - 7;
      xy[2 * i + 1] = y + i * length / 6;
    }
    line(Color.BLACK, 3, xy);
  }

  /** Wear grows with the grade: joints, cracks, lost bricks, a part that has fallen. */
  private void wall(int grade) {
    brick();
    for (int i = 0; i < (grade - 1) * 2; i++)
      crack(80 + r.nextInt(310), 62 + r.nextInt(60), 20 + grade * 12);
    for (int i = 0; i < (grade - 2) * 3; i++) {
      g.setColor(new Color(0x3B2D25));
      g.fillRect(60 + 44 * r.nextInt(8), 61 + 21 * r.nextInt(9), 43, 20);
    }
    if (grade == 5) area(SKY, 420, 60, 420, 170, 380, 150, 350, 90, 330, 60);
    if (grade == 5) area(SOIL, 360, 275, 450, 275, 440, 245, 400, 235, 375, 250);
  }

  /** A bank across, with water on one side; the crest sinks and the slope slips with the grade. */
  private void bank(int grade) {
    int sink = (grade - 1) * 9;
    area(WATER, 0, 190, 190, 190, 240, H, 0, H);
    area(EARTH, 90, 270, 190, 110 + sink, 290, 110 + sink / 2, 420, 270, W, 270, W, H, 90, H);
    line(DARK, 2, 190, 110, 290, 110);
    for (int i = 0; i < (5 - grade) * 25; i++) {
      int x = 190 + r.nextInt(100);
      line(new Color(0x4F7359), 2, x, 112 + sink, x + r.nextInt(7) - 3, 100 + sink);
    }
    if (grade >= 3) line(MARK, 4, 310, 140, 330, 172, 345, 200, 372, 230);
    if (grade >= 4) area(SOIL, 318, 160, 372, 232, 440, 272, 400, 276, 340, 225);
    if (grade == 5) area(SOIL, 190, 146, 235, 118, 262, 150, 226, 172);
  }

  private void defect(String kind) {
    switch (kind) {
      case "leak" -> {
        brick();
        for (int i = 0; i < 9; i++) line(WATER, 5, 110 + i * 4, 120, 96 + i * 8, 268);
      }
      case "crack" -> {
        brick();
        crack(340, 62, 200);
      }
      case "scour" -> {
        brick();
        area(DARK, 90, 270, 170, 320, 330, 320, 400, 270);
        line(MARK, 4, 90, 270, 170, 316, 330, 316, 400, 270);
      }
      case "blockage" -> {
        brick();
        for (int i = 0; i < 40; i++) {
          int x = 175 + r.nextInt(130);
          int y = 170 + r.nextInt(90);
          line(new Color(0x4A3B22), 5, x, y, x + r.nextInt(70) - 35, y + r.nextInt(40) - 20);
        }
      }
      case "missing_part" -> {
        brick();
        g.setColor(MARK);
        g.setStroke(
            new BasicStroke(
                4, BasicStroke.CAP_BUTT, BasicStroke.JOIN_MITER, 10, new float[] {12, 8}, 0));
        g.drawRect(170, 70, 140, 56);
      }
      default -> onABank(kind);
    }
  }

  private void onABank(String kind) {
    bank(1);
    switch (kind) {
      case "slip" -> {
        area(SOIL, 300, 130, 350, 190, 425, 270, 380, 275, 320, 215);
        line(MARK, 4, 296, 126, 322, 150, 338, 190);
      }
      case "seepage" -> {
        for (int i = 0; i < 6; i++) line(WATER, 5, 372, 220 + i * 7, 420 + i * 8, 268 + i * 3);
        area(WATER, 400, 270, 470, 270, 460, 284, 410, 284);
      }
      case "low_spot" -> {
        area(SKY, 205, 105, 275, 105, 255, 140, 225, 140);
        line(MARK, 4, 205, 110, 225, 140, 255, 140, 275, 110);
      }
      case "burrow" -> {
        g.setColor(Color.BLACK);
        g.fillOval(325, 165, 34, 28);
        area(SOIL, 340, 195, 390, 215, 352, 212);
      }
      case "tree" -> {
        line(new Color(0x4A3B22), 12, 240, 110, 240, 50);
        g.setColor(new Color(0x4F7359));
        g.fillOval(190, 5, 100, 75);
        line(new Color(0x4A3B22), 4, 240, 112, 215, 150, 205, 190);
        line(new Color(0x4A3B22), 4, 240, 112, 270, 160, 268, 200);
      }
      case "erosion" -> {
        area(DARK, 92, 270, 150, 176, 168, 200, 150, 260, 130, 320, 90, 320);
        line(MARK, 4, 150, 176, 168, 200, 150, 260, 130, 318);
      }
      default -> throw new IllegalArgumentException("no defect is called " + kind);
    }
  }

  /** A square metre from above. */
  private void cover(String kind) {
    g.setColor(kind.equals("bare") ? SOIL : kind.equals("water") ? WATER : EARTH);
    g.fillRect(90, 10, 300, 300);
    for (int i = 0; i < 160; i++) {
      int x = 95 + r.nextInt(280);
      int y = 30 + r.nextInt(270);
      switch (kind) {
        case "grass" -> line(new Color(0x4F7359), 2, x, y, x + r.nextInt(9) - 4, y - 16);
        case "rush" -> {
          if (i % 4 == 0)
            for (int k = -3; k < 4; k++) line(new Color(0x3A5530), 3, x, y, x + k * 5, y - 34);
        }
        case "reed" -> {
          line(new Color(0x8C7B45), 4, x, y, x + 3, Math.max(12, y - 70));
          g.fillOval(x - 2, Math.max(10, y - 82), 10, 18);
        }
        case "water" -> line(new Color(0x9FB4BF), 2, x, y, Math.min(388, x + 26), y);
        case "bare" -> {
          g.setColor(new Color(0x5E4637));
          g.fillOval(x, y, 3 + r.nextInt(6), 3 + r.nextInt(4));
        }
        default -> throw new IllegalArgumentException("no cover is called " + kind);
      }
    }
    g.setColor(DARK);
    g.setStroke(new BasicStroke(5));
    g.drawRect(90, 10, 300, 300);
  }

  /** Where silt is measured: from the sill up, in the middle of the opening. */
  private void silt() {
    brick();
    area(new Color(0x6B5A3E), 188, 215, 292, 215, 270, 244, 240, 250, 210, 244);
    line(MARK, 4, 240, 215, 240, 250);
    line(MARK, 4, 228, 215, 252, 215);
    line(MARK, 4, 228, 250, 252, 250);
  }

  /** Which way a structure looks: with the water that leaves it, clockwise from north. */
  private void bearing() {
    area(EARTH, 0, 0, W, 0, W, H, 0, H);
    area(WATER, 200, H, 280, H, 420, 0, 340, 0);
    g.setColor(SOIL);
    g.fillRect(190, 170, 130, 30);
    line(Color.BLACK, 4, 100, 260, 100, 80);
    line(Color.BLACK, 4, 88, 104, 100, 80, 112, 104);
    line(MARK, 6, 265, 165, 330, 40);
    line(MARK, 6, 306, 58, 330, 40, 334, 70);
    g.setColor(MARK);
    g.setStroke(new BasicStroke(3));
    Path2D arc = new Path2D.Double();
    arc.moveTo(100, 120);
    arc.curveTo(170, 90, 230, 100, 288, 120);
    g.draw(arc);
  }
}
