package org.whinridge.formats.source;

import java.io.IOException;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import org.whinridge.core.place.CoordinateSystem;
import org.whinridge.core.said.Said;
import org.whinridge.formats.file.FileProblem;

/** A file, or several that belong together, that holds layers. May be read any number of times. */
public interface Source {
  /** The file's own name. */
  String name();

  /** What people call it: the file's name, or how many files they are. */
  default Said title() {
    return Said.text(name());
  }

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

  /**
   * How it is read as a table, where a person can say otherwise ({@link TableReading}); empty for
   * what is none.
   */
  default Optional<TableReading> reading() {
    return Optional.empty();
  }

  /** Takes features one after the other. */
  interface Sink {
    /** Takes one feature; a problem ends the reading. */
    void take(RawFeature feature) throws FileProblem;

    /** Whether nobody wants more: a reader that waits for something asks this. */
    default boolean isOver() {
      return false;
    }

    /** Ends the reading, by an exception of the taker's own, when nobody wants more. */
    default void over() {}
  }

  /**
   * A layer in a file.
   *
   * @param name as the file has it
   * @param system its coordinate system, empty when the file does not say or it is not known
   * @param systemSaid what the file says of it; nothing when it does not
   * @param encoding of its texts, and how it was found: "UTF-8, by the .cpg"
   * @param expected how many features the file says it has; -1 when it does not
   * @param table whether it is a plain table, whose places may stand in columns
   * @param notes worth telling: "heights were left out"
   * @param aside columns that are offered but not taken unless somebody wishes: row numbers,
   *     heights
   * @param described what the file itself says of the fields
   * @param hidden whether the file itself hides it, so that it is offered but not taken
   */
  record SourceLayer(
      String name,
      Optional<CoordinateSystem> system,
      Said systemSaid,
      Said encoding,
      long expected,
      boolean table,
      List<Said> notes,
      Set<String> aside,
      boolean hidden,
      Optional<Described> described) {
    /** A layer whose columns are all taken. */
    public SourceLayer(
        String name,
        Optional<CoordinateSystem> system,
        Said systemSaid,
        Said encoding,
        long expected,
        boolean table,
        List<Said> notes) {
      this(
          name,
          system,
          systemSaid,
          encoding,
          expected,
          table,
          notes,
          Set.of(),
          false,
          Optional.empty());
    }

    /** The layer with columns set aside. */
    public SourceLayer withAside(Set<String> columns) {
      return new SourceLayer(
          name,
          system,
          systemSaid,
          encoding,
          expected,
          table,
          notes,
          Set.copyOf(columns),
          hidden,
          described);
    }

    /** The layer with more to tell. */
    public SourceLayer noted(List<Said> more) {
      List<Said> all = new java.util.ArrayList<>(notes);
      all.addAll(more);
      return new SourceLayer(
          name,
          system,
          systemSaid,
          encoding,
          expected,
          table,
          List.copyOf(all),
          aside,
          hidden,
          described);
    }

    /** The layer with what the file says of its fields. */
    public SourceLayer as(Optional<Described> what) {
      return new SourceLayer(
          name, system, systemSaid, encoding, expected, table, notes, aside, hidden, what);
    }

    /** The layer as one that the file hides. */
    public SourceLayer asHidden() {
      return new SourceLayer(
          name, system, systemSaid, encoding, expected, table, notes, aside, true, described);
    }

    /** A layer of WGS 84 in UTF-8, as GeoJSON, KML and GPX have it. */
    public static SourceLayer wgs84(String name) {
      return new SourceLayer(
          name,
          Optional.of(CoordinateSystem.wgs84()),
          Said.of("file.wgs84ByFormat"),
          Said.text("UTF-8"),
          -1,
          false,
          List.of());
    }
  }
}
