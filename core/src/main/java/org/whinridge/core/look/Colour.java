package org.whinridge.core.look;

import java.util.Optional;

/**
 * An opaque sRGB colour, each part 0 to 255, written as #rrggbb.
 *
 * @param red 0 to 255
 * @param green 0 to 255
 * @param blue 0 to 255
 */
public record Colour(int red, int green, int blue) {
  private static final String DIGITS = "0123456789abcdef";

  public Colour {
    if (((red | green | blue) & ~0xff) != 0)
      throw new IllegalArgumentException("parts of a colour run from 0 to 255");
  }

  /** Reads #rrggbb or #rgb; empty for anything else. */
  public static Optional<Colour> read(String s) {
    if (s.length() == 4 && s.charAt(0) == '#')
      return read(
          "#" + s.charAt(1) + s.charAt(1) + s.charAt(2) + s.charAt(2) + s.charAt(3) + s.charAt(3));
    if (s.length() != 7 || s.charAt(0) != '#') return Optional.empty();
    int n = 0;
    for (int i = 1; i < 7; i++) {
      int d = Character.digit(s.charAt(i), 16);
      if (d < 0 || s.charAt(i) > 'f') return Optional.empty();
      n = n << 4 | d;
    }
    return Optional.of(new Colour(n >> 16, n >> 8 & 0xff, n & 0xff));
  }

  /** A colour that is written out in the code. */
  static Colour of(String s) {
    return read(s).orElseThrow(() -> new IllegalArgumentException("not a colour: " + s));
  }

  /** The colour as #rrggbb. */
  public String hex() {
    StringBuilder b = new StringBuilder("#");
    for (int part : new int[] {red, green, blue})
      b.append(DIGITS.charAt(part >> 4)).append(DIGITS.charAt(part & 15));
    return b.toString();
  }

  /** Relative luminance, 0 to 1. Source: WCAG 2.2, definition of relative luminance. */
  public double luminance() {
    return 0.2126 * linear(red) + 0.7152 * linear(green) + 0.0722 * linear(blue);
  }

  /** The contrast of two colours, 1 to 21. Source: WCAG 2.2, definition of contrast ratio. */
  public static double contrast(Colour a, Colour b) {
    double x = a.luminance();
    double y = b.luminance();
    return (Math.max(x, y) + 0.05) / (Math.min(x, y) + 0.05);
  }

  /** A part as linear light, 0 to 1. Source: IEC 61966-2-1 (sRGB). */
  static double linear(int part) {
    double c = part / 255.0;
    return c <= 0.04045 ? c / 12.92 : Math.pow((c + 0.055) / 1.055, 2.4);
  }

  /** Linear light as a part, cut off at 0 and 255. */
  static int part(double linear) {
    double c = linear <= 0.0031308 ? 12.92 * linear : 1.055 * Math.pow(linear, 1 / 2.4) - 0.055;
    return (int) Math.max(0, Math.min(255, Math.floor(c * 255 + 0.5)));
  }
}
