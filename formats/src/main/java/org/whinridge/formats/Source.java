package org.whinridge.formats;

import java.io.IOException;
import java.util.List;
import java.util.Optional;
import org.whinridge.core.place.CoordinateSystem;

/** A file, or several that belong together, that holds layers. May be read any number of times. */
public interface Source {
  /** The name shown to people: the file's own. */
  String name();

  /** The format's name: "GeoPackage". */
  String format();

  /** What layers it holds. */
  List<SourceLayer> layers();

  /**
   * Reads a layer to its end, one feature in memory at a time.
   *
   * @return the number of features
   * @throws FileProblem when the file can't be read on; the message names the place
   */
  int each(SourceLayer layer, Sink sink) throws FileProblem, IOException;

  /** Takes features one after the other. */
  interface Sink {
    /** Takes one feature; a problem ends the reading. */
    void take(RawFeature feature) throws FileProblem;
  }

  /**
   * A layer in a file.
   *
   * @param name as the file has it
   * @param system its coordinate system, empty when the file does not say or it is not known
   * @param systemSaid what the file says of it; "" for nothing
   * @param encoding of its texts, and how it was found: "UTF-8, by the .cpg"
   * @param expected how many features the file says it has; -1 when it does not
   * @param table whether it is a plain table, whose places may stand in columns
   * @param notes worth telling: "heights were left out"
   */
  record SourceLayer(
      String name,
      Optional<CoordinateSystem> system,
      String systemSaid,
      String encoding,
      long expected,
      boolean table,
      List<String> notes) {
    /** A layer of WGS 84 in UTF-8, as GeoJSON, KML and GPX have it. */
    public static SourceLayer wgs84(String name) {
      return new SourceLayer(
          name,
          Optional.of(CoordinateSystem.wgs84()),
          "WGS 84, as the format says",
          "UTF-8",
          -1,
          false,
          List.of());
    }
  }
}
