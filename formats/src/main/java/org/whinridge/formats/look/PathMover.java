package org.whinridge.formats.look;

import java.awt.geom.AffineTransform;
import java.util.ArrayList;
import java.util.List;
import org.whinridge.core.said.Unfit;
import org.whinridge.core.text.Numbers;

/**
 * Path data (SVG 1.1, clause 8.3) under a transform: everything becomes absolute M, L, C, Q and Z;
 * arcs become curves by their centre (SVG 1.1, appendix F.6), a quarter turn at most each.
 */
final class PathMover {
  private final String d;
  private final AffineTransform at;
  private final StringBuilder out = new StringBuilder();
  private int i;
  private double x;
  private double y;
  private double startX;
  private double startY;
  private double controlX;
  private double controlY;
  private char before = 'M';

  private PathMover(String d, AffineTransform at) {
    this.d = d;
    this.at = at;
  }

  /**
   * The path moved.
   *
   * @throws IllegalArgumentException when it is not sound path data
   */
  static String move(String d, AffineTransform at) {
    PathMover m = new PathMover(d, at);
    m.all();
    return m.out.toString();
  }

  private void all() {
    char command = 0;
    while (true) {
      blank();
      if (i >= d.length()) return;
      char c = d.charAt(i);
      if (Character.isLetter(c)) {
        command = c;
        i++;
      } else if (command == 0 || Character.toUpperCase(command) == 'Z')
        throw new Unfit("file.pathNumberWhereCommand");
      else if (command == 'M') command = 'L';
      else if (command == 'm') command = 'l';
      one(command);
    }
  }

  private void blank() {
    while (i < d.length() && " ,\n\t".indexOf(d.charAt(i)) >= 0) i++;
  }

  private double number() {
    blank();
    int from = i;
    if (i < d.length() && "+-".indexOf(d.charAt(i)) >= 0) i++;
    boolean point = false;
    while (i < d.length()) {
      char c = d.charAt(i);
      if (c == '.' && !point) point = true;
      else if ((c == 'e' || c == 'E') && i > from) {
        if (i + 1 < d.length() && "+-".indexOf(d.charAt(i + 1)) >= 0) i++;
        point = true;
      } else if (c < '0' || c > '9') break;
      i++;
    }
    return Numbers.read(d.substring(from, i)).orElseThrow(() -> new Unfit("file.pathLacksNumber"));
  }

  /** A flag of an arc, which needs no blank after it. */
  private boolean flag() {
    blank();
    char c = i < d.length() ? d.charAt(i++) : ' ';
    if (c != '0' && c != '1') throw new Unfit("file.arcsFlagsOr");
    return c == '1';
  }

  private void one(char command) {
    boolean relative = Character.isLowerCase(command);
    double ox = relative ? x : 0;
    double oy = relative ? y : 0;
    switch (Character.toUpperCase(command)) {
      case 'M' -> {
        to('M', ox + number(), oy + number());
        startX = x;
        startY = y;
      }
      case 'L' -> to('L', ox + number(), oy + number());
      case 'H' -> to('L', ox + number(), y);
      case 'V' -> to('L', x, oy + number());
      case 'C' ->
          curve(
              ox + number(),
              oy + number(),
              ox + number(),
              oy + number(),
              ox + number(),
              oy + number());
      case 'S' -> {
        boolean smooth = "CcSs".indexOf(before) >= 0;
        curve(
            smooth ? 2 * x - controlX : x,
            smooth ? 2 * y - controlY : y,
            ox + number(),
            oy + number(),
            ox + number(),
            oy + number());
      }
      case 'Q' -> square(ox + number(), oy + number(), ox + number(), oy + number());
      case 'T' -> {
        boolean smooth = "QqTt".indexOf(before) >= 0;
        square(
            smooth ? 2 * x - controlX : x,
            smooth ? 2 * y - controlY : y,
            ox + number(),
            oy + number());
      }
      case 'A' -> arc(number(), number(), number(), flag(), flag(), ox + number(), oy + number());
      case 'Z' -> {
        out.append('Z');
        x = startX;
        y = startY;
      }
      default -> throw new Unfit("file.pathUnknownCommand", "command", command);
    }
    before = command;
  }

  private void put(double px, double py) {
    double[] p = {px, py};
    at.transform(p, 0, p, 0, 1);
    if (!(Math.abs(p[0]) < 1e6 && Math.abs(p[1]) < 1e6)) throw new Unfit("file.pathLeadsTooFar");
    String sx = Numbers.plain(Numbers.round(p[0], 3));
    String sy = Numbers.plain(Numbers.round(p[1], 3));
    if (Character.isDigit(out.charAt(out.length() - 1))) out.append(' ');
    out.append(sx).append(' ').append(sy);
  }

  private void to(char command, double nx, double ny) {
    out.append(command);
    put(nx, ny);
    x = nx;
    y = ny;
  }

  private void curve(double ax, double ay, double bx, double by, double nx, double ny) {
    out.append('C');
    put(ax, ay);
    put(bx, by);
    put(nx, ny);
    controlX = bx;
    controlY = by;
    x = nx;
    y = ny;
  }

  private void square(double ax, double ay, double nx, double ny) {
    out.append('Q');
    put(ax, ay);
    put(nx, ny);
    controlX = ax;
    controlY = ay;
    x = nx;
    y = ny;
  }

  private void arc(
      double radiusX,
      double radiusY,
      double turnDeg,
      boolean large,
      boolean sweep,
      double nx,
      double ny) {
    double rx = Math.abs(radiusX);
    double ry = Math.abs(radiusY);
    if (rx == 0 || ry == 0 || x == nx && y == ny) {
      to('L', nx, ny);
      return;
    }
    double cos = Math.cos(Math.toRadians(turnDeg));
    double sin = Math.sin(Math.toRadians(turnDeg));
    double mx = cos * (x - nx) / 2 + sin * (y - ny) / 2;
    double my = -sin * (x - nx) / 2 + cos * (y - ny) / 2;
    double grow = Math.sqrt(Math.max(1, mx * mx / (rx * rx) + my * my / (ry * ry)));
    rx *= grow;
    ry *= grow;
    double under = rx * rx * my * my + ry * ry * mx * mx;
    double k =
        Math.sqrt(Math.max(0, (rx * rx * ry * ry - under) / under)) * (large == sweep ? -1 : 1);
    double ux = k * rx * my / ry;
    double uy = -k * ry * mx / rx;
    double cx = cos * ux - sin * uy + (x + nx) / 2;
    double cy = sin * ux + cos * uy + (y + ny) / 2;
    double from = Math.atan2((my - uy) / ry, (mx - ux) / rx);
    double to = Math.atan2((-my - uy) / ry, (-mx - ux) / rx);
    double span = to - from;
    if (sweep && span < 0) span += 2 * Math.PI;
    if (!sweep && span > 0) span -= 2 * Math.PI;
    List<double[]> pieces = new ArrayList<>();
    int n = (int) Math.ceil(Math.abs(span) / (Math.PI / 2) - 1e-9);
    for (int p = 0; p < n; p++)
      pieces.add(new double[] {from + span * p / n, from + span * (p + 1) / n});
    for (double[] p : pieces) quarter(cx, cy, rx, ry, cos, sin, p[0], p[1]);
    x = nx;
    y = ny;
  }

  private void quarter(
      double cx, double cy, double rx, double ry, double cos, double sin, double a, double b) {
    double t = 4.0 / 3 * Math.tan((b - a) / 4);
    double[][] unit = {
      {Math.cos(a) - t * Math.sin(a), Math.sin(a) + t * Math.cos(a)},
      {Math.cos(b) + t * Math.sin(b), Math.sin(b) - t * Math.cos(b)},
      {Math.cos(b), Math.sin(b)}
    };
    out.append('C');
    for (double[] u : unit)
      put(cx + cos * rx * u[0] - sin * ry * u[1], cy + sin * rx * u[0] + cos * ry * u[1]);
  }
}
