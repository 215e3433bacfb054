package org.whinridge.core.place;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.Optional;
import java.util.Random;
import mil.nga.mgrs.MGRS;
import mil.nga.mgrs.grid.GridType;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.locationtech.jts.geom.Coordinate;
import org.whinridge.core.said.English;

/** Positions as people type and paste them. */
class TypedPlaceTest {
  private static final Optional<CoordinateSystem> UTM = Optional.of(CoordinateSystem.utmNorth(29));

  @ParameterizedTest
  @CsvSource(
      delimiter = '|',
      value = {
        "57.9012, -10.2034|-10.2034|57.9012",
        "57.9012 -10.2034|-10.2034|57.9012",
        "57.9012, \u221210.2034|-10.2034|57.9012",
        "57.9012; \u201310.2034|-10.2034|57.9012",
        "57,9012 -10,2034|-10.2034|57.9012",
        "57,9012, -10,2034|-10.2034|57.9012",
        "57,9012; -10,2034|-10.2034|57.9012",
        "57.9012 N 10.2034 W|-10.2034|57.9012",
        "57.9012N, 10.2034W|-10.2034|57.9012",
        "N57.9012 W10.2034|-10.2034|57.9012",
        "N 57,9012 W 10,2034|-10.2034|57.9012",
        "57,9012° N 10,2034° W|-10.2034|57.9012",
        "10.2034 W, 57.9012 N|-10.2034|57.9012",
        "57.9012 north, 10.2034 west|-10.2034|57.9012",
        "lat 57.9012 lon -10.2034|-10.2034|57.9012",
        "lat: 57.9012, long: -10.2034|-10.2034|57.9012",
        "longitude=-10.2034 latitude=57.9012|-10.2034|57.9012",
        "lat 57.9012 N lon 10.2034 W|-10.2034|57.9012",
        "57.9012° -10.2034°|-10.2034|57.9012",
        "57°54'4.32\" N 10°12'12.24\" W|-10.2034|57.9012",
        "57°54\u20324.32\u2033N 10°12\u203212.24\u2033W|-10.2034|57.9012",
        "57º54\u20194,32''N, 10º12\u201912,24''W|-10.2034|57.9012",
        "N 57°54'4.32\" W 10°12'12.24\"|-10.2034|57.9012",
        "57°54'4.32\" -10°12'12.24\"|-10.2034|57.9012",
        "57 54 4.32 N 10 12 12.24 W|-10.2034|57.9012",
        "57 54.072 N 10 12.204 W|-10.2034|57.9012",
        "N 57 54.072, W 10 12.204|-10.2034|57.9012",
        "57°54.072'N 10°12.204'W|-10.2034|57.9012",
        "57°54.072' -10°12.204'|-10.2034|57.9012",
        "57:54:04.32 N 10:12:12.24 W|-10.2034|57.9012",
        "57 deg 54 min 4.32 sec N 10 deg 12 min 12.24 sec W|-10.2034|57.9012",
        "-0°30' -0°15'|-0.25|-0.5",
        "33.5 S 151.2 E|151.2|-33.5",
        "geo:57.9012,-10.2034|-10.2034|57.9012",
        "geo:57.9012,-10.2034,12.5;crs=wgs84;u=10|-10.2034|57.9012",
        "POINT (-10.2034 57.9012)|-10.2034|57.9012",
        "SRID=4326;POINT Z (-10.2034 57.9012 12)|-10.2034|57.9012",
        "57.9012, -10.2034, 12.5|-10.2034|57.9012",
        "57.9012 N 10.2034 W 12 m|-10.2034|57.9012",
        "1 2 3|2|1"
      })
  void degreesAreReadAsPeopleTypeThem(String typed, double lon, double lat) {
    TypedPlace.Read r = TypedPlace.read(typed, UTM);
    assertThat(r.at()).as(English.of(r.message())).isPresent();
    assertThat(r.at().get().x).isCloseTo(lon, within(1e-9));
    assertThat(r.at().get().y).isCloseTo(lat, within(1e-9));
  }

  @ParameterizedTest
  @CsvSource(
      delimiter = '|',
      value = {
        "428654.2 6418120.5",
        "428654.2; 6418120.5",
        "428654,2 6418120,5",
        "428 654.2 6 418 120.5",
        "428\u202F654,2; 6\u202F418\u202F120,5",
        "428'654.2 6'418'120.5",
        "428,654.2 6,418,120.5",
        "428.654,2 6.418.120,5",
        "E 428654.2 N 6418120.5",
        "6418120.5 N 428654.2 E",
        "428654.2 m E, 6418120.5 m N",
        "x=428654.2 y=6418120.5",
        "easting 428654.2 northing 6418120.5",
        "428654.2 6418120.5 33",
        "POINT(428654.2 6418120.5)",
        "29V 428654.2 6418120.5",
        "29 N 428654.2 6418120.5",
        "29V 428654.2mE 6418120.5mN"
      })
  void eastingAndNorthingAreOfTheProjectsSystem(String typed) {
    TypedPlace.Read r = TypedPlace.read(typed, UTM);
    assertThat(r.at()).as(English.of(r.message())).isPresent();
    Coordinate back = CoordinateSystem.utmNorth(29).project(r.at().get()).orElseThrow();
    assertThat(back.x).isCloseTo(428654.2, within(0.001));
    assertThat(back.y).isCloseTo(6418120.5, within(0.001));
  }

  /** What was read as a place somewhere before, or could be. */
  @ParameterizedTest
  @CsvSource(
      delimiter = '|',
      value = {
        "91, 10|latitudes run to 90",
        "57.9, 200|longitudes to 180",
        "NN 1234 5678|“NN” is not understood",
        "NN1234|“NN” is not understood",
        "57.9012 Q 10|“Q” is not understood; up to there stands “57.9012”",
        "57|Understood 57; the second number is missing",
        "57 N|Understood 57 N; the second number is missing",
        "57 N 10 N|One of the two must be north or south",
        "91 N 10 W|Latitudes run to 90",
        "57 70 N 10 5 W|Minutes and seconds run from 0 to 60",
        "57.5 30 N 10 5 W|then only the last number has decimals",
        "-57 N 10 W|without a sign",
        "1 2 3 4|too much for a position",
        "57.9 O 10.2 N|east in some languages",
        "geo:57.9,-10.2;crs=moon|only WGS 84",
        "SRID=27700;POINT(400000 300000)|EPSG:27700",
        "61V 428654 6418120|Zones of UTM run from 1 to 60",
        "29VMD 123|as many digits of easting",
        "29VZZ 12 12|There is no square ZZ",
        "29S 428654 3900000|is meant for south",
        "29V 428654 5000000|does not lie in band V",
        "57.9.1 10|not understood",
        "9e99 1|only one of the two says which it is",
        "'   '|Type latitude and longitude"
      })
  void whatIsNotUnderstoodIsRefusedWithWhatWas(String typed, String said) {
    TypedPlace.Read r = TypedPlace.read(typed, UTM);
    assertThat(r.at()).as(English.of(r.message())).isEmpty();
    assertThat(English.of(r.message())).contains(said);
  }

  @Test
  void withoutASystemThereAreNoEastings() {
    assertThat(English.of(TypedPlace.read("428654.2 6418120.5", Optional.empty()).message()))
        .contains("no system of eastings");
  }

  /** Against NGA's own library (mil.nga.mgrs), over the whole earth but the poles. */
  @Test
  void gridReferencesAreThoseOfTheStandard() throws Exception {
    Random random = new Random(11);
    double worst = 0;
    for (int i = 0; i < 3000; i++) {
      double lat = -79.9 + random.nextDouble() * 163.8;
      double lon = -180 + random.nextDouble() * 360;
      String reference =
          MGRS.from(mil.nga.grid.features.Point.point(lon, lat)).coordinate(GridType.METER);
      TypedPlace.Read r = TypedPlace.read(i % 2 == 0 ? reference : spaced(reference), UTM);
      assertThat(r.at()).as(reference + ": " + English.of(r.message())).isPresent();
      worst = Math.max(worst, Geodesy.distanceM(r.at().get(), new Coordinate(lon, lat)));
    }
    // the corner of a square of 1 m
    assertThat(worst).isLessThan(1.5);
  }

  private static String spaced(String reference) {
    return reference.replaceAll("^(\\d+)([A-Z])([A-Z]{2})(\\d{5})(\\d{5})$", "$1$2 $3 $4 $5");
  }

  @Test
  void aGridReferenceSaysHowLargeItsSquareIs() {
    assertThat(English.of(TypedPlace.read("29v md 28 18", UTM).message()))
        .contains("29V MD 28 18", "its square of 1 km");
    assertThat(English.of(TypedPlace.read("29VMD2865418120", UTM).message()))
        .contains("its square of 1 m");
  }
}
