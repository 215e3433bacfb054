package org.whinridge.formats.crs;

import java.sql.Connection;
import java.sql.ResultSet;
import java.sql.SQLException;
import java.sql.Statement;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.regex.Pattern;
import javax.sql.DataSource;
import org.apache.sis.setup.Configuration;
import org.whinridge.core.place.AreaOfUse;
import org.whinridge.core.place.Box;

/**
 * Where coordinate systems are meant to be used and what for, by the EPSG dataset's tables of
 * extents and scopes. All are read at once at the first question: a system by system reading of
 * them would take minutes.
 */
final class AreasOfUse {
  private record Use(int code, AreaOfUse area, String scope, boolean current) {
    /** Whether it is for surveys or maps of a country, and no system of the whole world. */
    boolean isUsual() {
      return current
          && SURVEYS.matcher(scope).find()
          && !scope.contains("(small scale)")
          && !area.name().startsWith("World");
    }
  }

  /** Scopes of the grids that countries survey and map by; the dataset's own words. */
  private static final Pattern SURVEYS =
      Pattern.compile("engineering survey|topographic mapping", Pattern.CASE_INSENSITIVE);

  private static final String READ =
      """
      select c.COORD_REF_SYS_CODE, e.EXTENT_NAME, e.BBOX_WEST_BOUND_LON, e.BBOX_SOUTH_BOUND_LAT,
             e.BBOX_EAST_BOUND_LON, e.BBOX_NORTH_BOUND_LAT, s.SCOPE, c.DEPRECATED,
             (select min(x.SUPERSEDED_BY) from EPSG."Supersession" x
               where x.OBJECT_TABLE_NAME = 'Coordinate Reference System'
                 and x.OBJECT_CODE = c.COORD_REF_SYS_CODE)
        from EPSG."Coordinate Reference System" c
        join EPSG."Usage" u on u.OBJECT_CODE = c.COORD_REF_SYS_CODE
         and u.OBJECT_TABLE_NAME = 'Coordinate Reference System'
        join EPSG."Extent" e on e.EXTENT_CODE = u.EXTENT_CODE
        join EPSG."Scope" s on s.SCOPE_CODE = u.SCOPE_CODE
       where c.COORD_REF_SYS_KIND in ('projected', 'geographic 2D')
      """;

  private AreasOfUse() {}

  /** The area of a system: the one for surveys and maps where it has several. */
  static Optional<AreaOfUse> of(int code) {
    return Read.ALL.getOrDefault(code, List.of()).stream()
        .min(Comparator.comparing((Use u) -> !u.isUsual()))
        .map(Use::area);
  }

  /** Codes of the systems for surveys and maps at a place, the smallest areas first. */
  static List<Integer> surveyedAt(double lon, double lat) {
    return Read.ALL.values().stream()
        .flatMap(List::stream)
        .filter(u -> u.isUsual() && u.area().box().holds(lon, lat))
        .sorted(
            Comparator.comparingDouble((Use u) -> u.area().box().squareKm())
                .thenComparing(Use::code, Comparator.reverseOrder()))
        .map(Use::code)
        .distinct()
        .toList();
  }

  /** Loaded at first use, in a quarter of a second once the dataset is open. */
  private static final class Read {
    static final Map<Integer, List<Use>> ALL = new LinkedHashMap<>();

    static {
      Epsg.names(); // opens the dataset
      try {
        DataSource dataset =
            Configuration.current()
                .getDatabase()
                .orElseThrow(() -> new IllegalStateException("the EPSG dataset is not there"));
        try (Connection c = dataset.getConnection();
            Statement s = c.createStatement();
            ResultSet r = s.executeQuery(READ)) {
          while (r.next()) {
            Optional<Box> box = box(r);
            if (box.isEmpty()) continue;
            Use u =
                new Use(
                    r.getInt(1),
                    new AreaOfUse(r.getString(2), box.get()),
                    r.getString(7).toLowerCase(Locale.ROOT),
                    !r.getBoolean(8) && r.getString(9) == null);
            ALL.computeIfAbsent(u.code(), k -> new ArrayList<>()).add(u);
          }
        }
      } catch (SQLException e) {
        throw new IllegalStateException("the EPSG dataset can't be read", e);
      }
    }

    private static Optional<Box> box(ResultSet r) throws SQLException {
      double[] n = new double[4];
      for (int i = 0; i < n.length; i++) {
        n[i] = r.getDouble(3 + i);
        if (r.wasNull()) return Optional.empty();
      }
      return Optional.of(new Box(n[0], n[1], n[2], n[3]));
    }
  }
}
