package org.whinridge.core.look;

/**
 * Colours as people see them: a space in which equal steps look equal, and sight without one kind
 * of cone.
 *
 * <p>Sources, from memory: B. Ottosson, "A perceptual color space for image processing" (2020), for
 * Oklab; F. Viénot, H. Brettel, J. D. Mollon, "Digital video colourmaps for checking the legibility
 * of displays by dichromats", Color Research & Application 24 (1999), for the missing cones.
 */
public final class Seen {
  /** Which cones are missing; the third kind is rare. */
  public enum Sight {
    /** All cones. */
    FULL,
    /** No long-wave cones: reds look dark. */
    PROTANOPE,
    /** No medium-wave cones: reds and greens look alike. */
    DEUTERANOPE
  }

  private Seen() {}

  /** The colour in Oklab: lightness 0 to 1, then the green-red and the blue-yellow axis. */
  static double[] oklab(Colour c) {
    double r = Colour.linear(c.red());
    double g = Colour.linear(c.green());
    double b = Colour.linear(c.blue());
    double l = Math.cbrt(0.4122214708 * r + 0.5363325363 * g + 0.0514459929 * b);
    double m = Math.cbrt(0.2119034982 * r + 0.6806995451 * g + 0.1073969566 * b);
    double s = Math.cbrt(0.0883024619 * r + 0.2817188376 * g + 0.6299787005 * b);
    return new double[] {
      0.2104542553 * l + 0.7936177850 * m - 0.0040720468 * s,
      1.9779984951 * l - 2.4285922050 * m + 0.4505937099 * s,
      0.0259040371 * l + 0.7827717662 * m - 0.8086757660 * s
    };
  }

  /** The colour of a place in Oklab; what lies outside of sRGB is cut off. */
  static Colour ofOklab(double lightness, double a, double b) {
    double l = lightness + 0.3963377774 * a + 0.2158037573 * b;
    double m = lightness - 0.1055613458 * a - 0.0638541728 * b;
    double s = lightness - 0.0894841775 * a - 1.2914855480 * b;
    l = l * l * l;
    m = m * m * m;
    s = s * s * s;
    return new Colour(
        Colour.part(4.0767416621 * l - 3.3077115913 * m + 0.2309699292 * s),
        Colour.part(-1.2684380046 * l + 2.6097574011 * m - 0.3413193965 * s),
        Colour.part(-0.0041960863 * l - 0.7034186147 * m + 1.7076147010 * s));
  }

  /** The colour as somebody sees it. */
  public static Colour by(Sight sight, Colour c) {
    if (sight == Sight.FULL) return c;
    double r = Colour.linear(c.red());
    double g = Colour.linear(c.green());
    double b = Colour.linear(c.blue());
    double both = sight == Sight.PROTANOPE ? 0.11238 * r + 0.88762 * g : 0.29275 * r + 0.70725 * g;
    double blue =
        sight == Sight.PROTANOPE ? 0.00401 * r - 0.00401 * g + b : -0.02234 * r + 0.02234 * g + b;
    return new Colour(Colour.part(both), Colour.part(both), Colour.part(blue));
  }

  /**
   * How far apart two colours look to somebody: the distance in Oklab times 100. About 2 is just
   * noticed side by side.
   */
  public static double distance(Sight sight, Colour x, Colour y) {
    double[] p = oklab(by(sight, x));
    double[] q = oklab(by(sight, y));
    double sum = 0;
    for (int i = 0; i < 3; i++) sum += (p[i] - q[i]) * (p[i] - q[i]);
    return 100 * Math.sqrt(sum);
  }
}
