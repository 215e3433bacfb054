package org.whinridge.formats;

import java.io.IOException;
import java.io.InputStream;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import org.whinridge.core.said.Said;
import org.whinridge.formats.csv.CsvSource;
import org.whinridge.formats.file.Archive;
import org.whinridge.formats.file.FileNames;
import org.whinridge.formats.file.FileProblem;
import org.whinridge.formats.file.Limits;
import org.whinridge.formats.geojson.GeoJsonSource;
import org.whinridge.formats.geopackage.GeoPackageSource;
import org.whinridge.formats.gpx.GpxSource;
import org.whinridge.formats.kml.KmlSource;
import org.whinridge.formats.photos.PhotosSource;
import org.whinridge.formats.photos.Pictures;
import org.whinridge.formats.shapefile.ShapefileCompanions;
import org.whinridge.formats.shapefile.ShapefileSource;
import org.whinridge.formats.source.Source;
import org.whinridge.formats.source.TableReading;
import org.whinridge.formats.xlsx.XlsxSource;

/**
 * Opens what was brought: any number of files, archives unpacked, parts of Shapefiles put together.
 * What a file is, its content decides; the ending only tells a plain text table.
 */
public final class Sources {
  /** A file that was brought: the name it had, and where its bytes are. */
  public record Brought(String name, Path file) {}

  /** A file of which nothing is taken, and why. */
  public record NotUnderstood(Said name, Said why) {
    /** A file by its name. */
    public NotUnderstood(String name, Said why) {
      this(Said.text(name), why);
    }

    static NotUnderstood more(int files, Said why) {
      return new NotUnderstood(Said.of("file.more", "n", files), why);
    }
  }

  /** What can be read, and what not. */
  public record Opened(List<Source> sources, List<NotUnderstood> notUnderstood) {}

  /** So many files with the same problem are told one by one. */
  private static final int TOLD_EACH = 10;

  /** Of more, so many are told by name. */
  private static final int TOLD_OF_MANY = 3;

  private final Path scratch;
  private final Map<String, TableReading> tables;
  private final List<Source> sources = new ArrayList<>();
  private final List<NotUnderstood> notUnderstood = new ArrayList<>();
  private final Map<String, Map<String, Path>> shapefiles = new LinkedHashMap<>();
  private final Map<String, String> stems = new LinkedHashMap<>();
  private final Map<String, Path> photos = new LinkedHashMap<>();
  private final Map<String, Brought> besides = new LinkedHashMap<>();
  private final List<Brought> kmls = new ArrayList<>();
  private int archives;

  private Sources(Path scratch, Map<String, TableReading> tables) {
    this.scratch = scratch;
    this.tables = tables;
  }

  /**
   * Opens files.
   *
   * @param scratch an empty folder for what is unpacked; the caller removes it
   */
  public static Opened open(List<Brought> files, Path scratch) throws IOException {
    return open(files, scratch, Map.of());
  }

  /**
   * As {@link #open(List, Path)}.
   *
   * @param tables how tables are to be read, by the names of their files, where a person said so
   */
  public static Opened open(List<Brought> files, Path scratch, Map<String, TableReading> tables)
      throws IOException {
    Sources s = new Sources(scratch, tables);
    for (Brought b : files) s.file(b, 0);
    s.together();
    return new Opened(List.copyOf(s.sources), summed(s.notUnderstood));
  }

  /**
   * Many files with one and the same problem are told as one: the first by name, the others
   * counted.
   */
  private static List<NotUnderstood> summed(List<NotUnderstood> all) {
    Map<Said, List<NotUnderstood>> byWhy = new LinkedHashMap<>();
    for (NotUnderstood n : all) byWhy.computeIfAbsent(n.why, k -> new ArrayList<>()).add(n);
    List<NotUnderstood> out = new ArrayList<>();
    byWhy.forEach(
        (why, of) -> {
          int told = of.size() > TOLD_EACH ? TOLD_OF_MANY : of.size();
          out.addAll(of.subList(0, told));
          if (told < of.size()) out.add(NotUnderstood.more(of.size() - told, why));
        });
    return List.copyOf(out);
  }

  private void file(Brought b, int depth) throws IOException {
    try {
      one(b, depth);
    } catch (FileProblem e) {
      notUnderstood.add(new NotUnderstood(b.name, e.said()));
    } catch (java.io.EOFException e) {
      notUnderstood.add(new NotUnderstood(b.name, Said.of("file.fileEndsTooEarly")));
    }
  }

  private void one(Brought b, int depth) throws FileProblem, IOException {
    byte[] head;
    try (InputStream in = Files.newInputStream(b.file)) {
      head = in.readNBytes(4096);
    }
    if (head.length == 0) throw new FileProblem("file.fileEmpty");
    String ending = FileNames.ending(b.name);
    if (Archive.isZip(head)) archive(b, depth);
    else if (begins(head, "SQLite format 3\0"))
      sources.add(new GeoPackageSource(b.name, b.file, pictures()));
    else if (isPart(ending)) part(b, ending);
    else if (Pictures.isJpeg(head) || Pictures.isPng(head)) photo(b);
    else {
      String text = text(head);
      if (text.startsWith("<")) xml(b, text);
      else if (text.startsWith("{") || text.startsWith("["))
        sources.add(new GeoJsonSource(b.name, b.file));
      else if (isBeside(b)) besides.put(b.name.replace('\\', '/').toLowerCase(Locale.ROOT), b);
      else if (List.of("csv", "tsv", "txt", "tab").contains(ending))
        sources.add(new CsvSource(b.name, b.file, reading(b)));
      else if (List.of("geojson", "json", "geojsonl", "ndjson").contains(ending))
        throw new FileProblem("file.notSoundJsonBegins", "text", Limits.cut(text, 20));
      else if (List.of("jpg", "jpeg", "png").contains(ending))
        throw new FileProblem("file.noPictureThoughName", "ending", ending);
      else throw new FileProblem(unknown(ending, head));
    }
  }

  /** A picture is offered when it can be read; one whose end is missing is, and told. */
  private void photo(Brought b) throws FileProblem, IOException {
    Path photo =
        Pictures.photo(b.file).orElseThrow(() -> new FileProblem("file.pictureCantBeRead"));
    if (Pictures.fault(photo) == Pictures.Fault.UNREADABLE) throw new FileProblem("file.noJpeg");
    photos.put(b.name, b.file);
  }

  /** Whether a table is one that the application itself puts beside a Shapefile. */
  private static boolean isBeside(Brought b) throws IOException {
    String name = b.name.toLowerCase(Locale.ROOT);
    return name.endsWith(ShapefileCompanions.NAMES)
            && ShapefileCompanions.begins(b.file, ShapefileCompanions.NAMES_HEAD)
        || name.endsWith(ShapefileCompanions.WHOLE)
            && ShapefileCompanions.begins(b.file, ShapefileCompanions.WHOLE_HEAD);
  }

  private Optional<ShapefileCompanions> companions(String stem) throws FileProblem, IOException {
    Brought names = besides.remove(stem + ShapefileCompanions.NAMES);
    Brought whole = besides.remove(stem + ShapefileCompanions.WHOLE);
    if (names == null) {
      // without the names nobody knows whose texts these are
      if (whole != null) sources.add(new CsvSource(whole.name, whole.file, reading(whole)));
      return Optional.empty();
    }
    return Optional.of(
        ShapefileCompanions.read(names.file, Optional.ofNullable(whole).map(Brought::file)));
  }

  /** A folder for pictures that come out of files. */
  private Path pictures() throws IOException {
    return Files.createDirectories(scratch.resolve("p" + archives++));
  }

  private TableReading reading(Brought b) {
    return tables.getOrDefault(b.name, TableReading.FOUND);
  }

  private static Said unknown(String ending, byte[] head) {
    for (byte x : head)
      if (x == 0)
        return ending.isEmpty()
            ? Said.of("file.unknown")
            : Said.of("file.unknownEnding", "ending", ending);
    return Said.of("file.unknownText");
  }

  private static boolean begins(byte[] head, String with) {
    byte[] w = with.getBytes(StandardCharsets.ISO_8859_1);
    return head.length >= w.length && java.util.Arrays.equals(head, 0, w.length, w, 0, w.length);
  }

  private static String text(byte[] head) {
    String s = new String(head, StandardCharsets.UTF_8);
    if (head.length > 1 && (head[0] & 255) == 0xFF && (head[1] & 255) == 0xFE)
      s = new String(head, StandardCharsets.UTF_16LE);
    return s.replace("\uFEFF", "").replace("\u001E", "").stripLeading();
  }

  private void xml(Brought b, String text) throws FileProblem, IOException {
    String t = text.toLowerCase(Locale.ROOT);
    if (t.contains("<kml")) kmls.add(b);
    else if (t.contains("<gpx")) sources.add(new GpxSource(b.name, b.file));
    else throw new FileProblem("file.xmlButNeitherKml");
  }

  private static boolean isPart(String ending) {
    return List.of("shp", "dbf", "shx", "prj", "cpg", "sbn", "sbx", "qix").contains(ending);
  }

  private void part(Brought b, String ending) {
    String name = b.name.replace('\\', '/');
    String stem = name.substring(0, name.length() - ending.length() - 1);
    stems.putIfAbsent(stem.toLowerCase(Locale.ROOT), FileNames.shown(stem));
    shapefiles
        .computeIfAbsent(stem.toLowerCase(Locale.ROOT), k -> new LinkedHashMap<>())
        .put(ending, b.file);
  }

  private void archive(Brought b, int depth) throws FileProblem, IOException {
    List<String> names = Archive.names(b.file);
    if (names.contains("xl/workbook.xml")) {
      sources.add(new XlsxSource(b.name, b.file, reading(b)));
      return;
    }
    if (depth > 0 && !FileNames.ending(b.name).equals("kmz"))
      throw new FileProblem("file.archiveWithinArchiveNot");
    if (names.stream().anyMatch(n -> n.equals("mimetype")) && names.contains("content.xml"))
      throw new FileProblem("file.opendocumentFileSaveAs");
    Path into = Files.createDirectories(scratch.resolve("a" + archives++));
    List<Archive.Entry> entries = Archive.unpack(b.file, into);
    boolean kmz = entries.stream().anyMatch(e -> FileNames.ending(e.name()).equals("kml"));
    if (kmz) kmz(b, entries);
    else
      for (Archive.Entry e : entries)
        if (!e.name().contains("__MACOSX")) file(new Brought(e.name(), e.file()), depth + 1);
  }

  private void kmz(Brought b, List<Archive.Entry> entries) throws IOException {
    Map<String, Path> pictures = new LinkedHashMap<>();
    for (Archive.Entry e : entries) {
      String ending = FileNames.ending(e.name());
      if (List.of("jpg", "jpeg", "png").contains(ending)) pictures.put(e.name(), e.file());
    }
    for (Archive.Entry e : entries)
      if (FileNames.ending(e.name()).equals("kml")) kml(b.name, e.file(), pictures);
      else if (!pictures.containsKey(e.name())
          && !List.of("gif", "svg").contains(FileNames.ending(e.name())))
        file(new Brought(e.name(), e.file()), 1);
  }

  private void kml(String name, Path file, Map<String, Path> pictures) throws IOException {
    try {
      sources.add(new KmlSource(name, file, pictures));
    } catch (FileProblem e) {
      notUnderstood.add(new NotUnderstood(name, e.said()));
    }
  }

  /** Parts that lie in several files: Shapefiles, photos, a KML with the pictures beside it. */
  private void together() throws IOException {
    for (Map.Entry<String, Map<String, Path>> s : shapefiles.entrySet()) {
      String stem = stems.get(s.getKey());
      String name = stem + ".shp";
      if (!s.getValue().containsKey("shp") && !s.getValue().containsKey("dbf")) {
        s.getValue()
            .keySet()
            .forEach(
                p ->
                    notUnderstood.add(
                        new NotUnderstood(stem + "." + p, Said.of("file.shpBelongsMissing"))));
        continue;
      }
      if (!s.getValue().containsKey("shp")) name = stem + ".dbf";
      try {
        sources.add(new ShapefileSource(name, s.getValue(), companions(s.getKey())));
      } catch (FileProblem e) {
        notUnderstood.add(new NotUnderstood(name, e.said()));
      } catch (java.io.EOFException e) {
        notUnderstood.add(new NotUnderstood(name, Said.of("file.fileEndsTooEarly")));
      }
    }
    for (Brought k : kmls) {
      String home = k.name.replace('\\', '/').replaceFirst("[^/]*$", "");
      Map<String, Path> beside = new LinkedHashMap<>();
      photos.forEach(
          (n, p) ->
              beside.put(
                  n.replace('\\', '/').startsWith(home) ? n.substring(home.length()) : n, p));
      kml(k.name, k.file, beside);
    }
    for (Brought b : besides.values())
      try {
        sources.add(new CsvSource(b.name, b.file, reading(b)));
      } catch (FileProblem e) {
        notUnderstood.add(new NotUnderstood(b.name, e.said()));
      }
    if (!photos.isEmpty() && kmls.isEmpty()) sources.add(new PhotosSource(photos));
  }
}
