package org.whinridge.core.place;

import com.google.re2j.Matcher;
import com.google.re2j.Pattern;
import java.util.Optional;
import org.locationtech.jts.geom.Coordinate;
import org.whinridge.core.said.Said;

/**
 * References in the military grid ("29VMD 28654 18120") and in UTM with a zone ("29V 428654
 * 6418120").
 *
 * <p>Source: NGA.STND.0037, "The Universal Grids and the Transverse Mercator and Polar
 * Stereographic Map Projections" (2014), chapters on UTM and MGRS, stated from memory; the test
 * holds it against NGA's own library. The polar part (bands A, B, Y, Z) is not read.
 */
final class GridReference {
  private static final Pattern MGRS =
      Pattern.compile(
          "(?i)([0-9]{1,2}) ?([A-HJ-NP-Z]) ?([A-HJ-NP-Z])([A-HJ-NP-Z]) ?([0-9]*) ?([0-9]*)");
  private static final Pattern UTM =
      Pattern.compile(
          "(?i)([0-9]{1,2}) ?([A-HJ-NP-Z])[ ,;]+([0-9]+(?:\\.[0-9]+)?) ?(?:m ?E|mE|E|m)?[ ,;]+([0-9]+(?:\\.[0-9]+)?) ?(?:m ?N|mN|N|m)?");
  private static final String BANDS = "CDEFGHJKLMNPQRSTUVWX";
  private static final String LETTERS = "ABCDEFGHJKLMNPQRSTUVWXYZ";
  private static final double SQUARE_M = 100_000;
  private static final double CYCLE_M = 2_000_000;
  private static final double SOUTH_M = 10_000_000;

  private GridReference() {}

  /** The position that a text gives as a grid reference; empty when it is not written as one. */
  static Optional<TypedPlace.Read> read(String text) {
    Matcher m = MGRS.matcher(text);
    if (m.matches()) return Optional.of(mgrs(m));
    Matcher u = UTM.matcher(text);
    if (!u.matches()) return Optional.empty();
    double east = Double.parseDouble(u.group(3));
    double north = Double.parseDouble(u.group(4));
    // "57 N 10 12": degrees; eastings of UTM lie between 100 and 1,000 km
    if (east < SQUARE_M || east >= 10 * SQUARE_M || north > SOUTH_M) return Optional.empty();
    return Optional.of(utm(Integer.parseInt(u.group(1)), upper(u.group(2)).charAt(0), east, north));
  }

  private static TypedPlace.Read mgrs(Matcher m) {
    int zone = Integer.parseInt(m.group(1));
    char band = upper(m.group(2)).charAt(0);
    String square = upper(m.group(3) + m.group(4));
    String digits = m.group(5) + m.group(6);
    Optional<TypedPlace.Read> no = zoneProblem(zone, band);
    if (no.isPresent()) return no.get();
    if (digits.length() % 2 != 0
        || digits.length() > 10
        || !m.group(6).isEmpty() && m.group(5).length() != m.group(6).length())
      return TypedPlace.no(
          "typed.gridDigits",
          "square",
          zone + "" + band + square,
          "digits",
          (m.group(5) + " " + m.group(6)).strip());
    int column = LETTERS.indexOf(square.charAt(0)) - 8 * ((zone - 1) % 3);
    int row = LETTERS.indexOf(square.charAt(1));
    if (column < 0 || column > 7 || row > 19)
      return TypedPlace.no("typed.noSquareInZone", "square", square, "zone", zone + "" + band);
    if (zone % 2 == 0) row = (row + 15) % 20; // even zones begin with F
    int half = digits.length() / 2;
    double step = SQUARE_M / Math.pow(10, half);
    double east = (column + 1) * SQUARE_M + (half == 0 ? 0 : whole(digits, 0, half) * step);
    double north = row * SQUARE_M + (half == 0 ? 0 : whole(digits, half, 2 * half) * step);
    double least = leastNorthing(zone, band);
    while (north < least) north += CYCLE_M;
    String written =
        zone
            + ""
            + band
            + " "
            + square
            + (half == 0 ? "" : " " + digits.substring(0, half) + " " + digits.substring(half));
    Said said =
        Said.of(
            "typed.grid",
            "square",
            written,
            "size",
            step >= 1000
                ? Said.of("unit.km", "n", Said.number(step / 1000))
                : Said.of("unit.m", "n", Said.number(step)));
    Coordinate at = system(zone, band < 'N').unproject(new Coordinate(east, north)).orElse(null);
    if (at == null || !inBand(at.y, band, 1.0))
      return TypedPlace.no(
          "typed.noSquareInBand", "square", square, "band", band, "zone", String.valueOf(zone));
    return new TypedPlace.Read(Optional.of(at), said);
  }

  /** Capital letters of A to Z, without asking a language. */
  private static String upper(String s) {
    StringBuilder b = new StringBuilder();
    for (char c : s.toCharArray()) b.append(c >= 'a' && c <= 'z' ? (char) (c - 32) : c);
    return b.toString();
  }

  private static long whole(String s, int from, int to) {
    return Long.parseLong(s.substring(from, to));
  }

  private static TypedPlace.Read utm(int zone, char band, double east, double north) {
    Optional<TypedPlace.Read> no = zoneProblem(zone, band);
    if (no.isPresent()) return no.get();
    Optional<Coordinate> northern = in(zone, false, east, north);
    Optional<Coordinate> southern = in(zone, true, east, north);
    // a letter names a band; N and S are also written for the half of the earth
    boolean asBand =
        (band < 'N' ? southern : northern).filter(c -> inBand(c.y, band, 0.01)).isPresent();
    if (band == 'S' && asBand && southern.isPresent())
      return TypedPlace.no("typed.bandS", "zone", String.valueOf(zone));
    Optional<Coordinate> at =
        asBand
            ? (band < 'N' ? southern : northern)
            : band == 'S' ? southern : band == 'N' ? northern : Optional.empty();
    if (at.isEmpty())
      return TypedPlace.no(
          "typed.notInBand",
          "read",
          TypedPlace.metres(east, north, Said.of("typed.utmZone", "zone", String.valueOf(zone))),
          "band",
          band);
    return new TypedPlace.Read(
        at,
        TypedPlace.metres(
            east,
            north,
            Said.of(
                at.get().y < 0 ? "typed.utmSouth" : "typed.utmNorth",
                "zone",
                String.valueOf(zone))));
  }

  private static Optional<Coordinate> in(int zone, boolean south, double east, double north) {
    return system(zone, south)
        .unproject(new Coordinate(east, north))
        .filter(c -> south ? c.y <= 0 && c.y >= -80.5 : c.y >= 0 && c.y <= 84.5);
  }

  private static Optional<TypedPlace.Read> zoneProblem(int zone, char band) {
    if (zone < 1 || zone > 60) return Optional.of(TypedPlace.no("typed.zones", "n", zone));
    return BANDS.indexOf(band) < 0 ? Optional.of(TypedPlace.no("typed.bands")) : Optional.empty();
  }

  private static boolean inBand(double lat, char band, double slackDeg) {
    double from = -80 + 8 * BANDS.indexOf(band);
    return lat >= from - slackDeg && lat <= from + (band == 'X' ? 12 : 8) + slackDeg;
  }

  /** The northing, in whole squares, at which a band begins on the zone's middle meridian. */
  private static double leastNorthing(int zone, char band) {
    double lat = -80 + 8 * BANDS.indexOf(band);
    double north =
        system(zone, band < 'N').project(new Coordinate(zone * 6 - 183, lat)).orElseThrow().y;
    return Math.floor(north / SQUARE_M) * SQUARE_M;
  }

  private static CoordinateSystem system(int zone, boolean south) {
    return south ? CoordinateSystem.utmSouth(zone) : CoordinateSystem.utmNorth(zone);
  }
}
