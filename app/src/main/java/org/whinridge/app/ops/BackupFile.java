package org.whinridge.app.ops;

import com.eclipsesource.json.Json;
import com.eclipsesource.json.JsonArray;
import com.eclipsesource.json.JsonObject;
import com.eclipsesource.json.JsonValue;
import com.eclipsesource.json.ParseException;
import java.io.IOException;
import java.io.InputStream;
import java.io.OutputStream;
import java.nio.charset.StandardCharsets;
import java.nio.file.FileSystemException;
import java.nio.file.Files;
import java.nio.file.NoSuchFileException;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;
import java.nio.file.StandardOpenOption;
import java.security.DigestInputStream;
import java.security.DigestOutputStream;
import java.security.MessageDigest;
import java.security.NoSuchAlgorithmException;
import java.sql.Connection;
import java.sql.DriverManager;
import java.sql.ResultSet;
import java.sql.SQLException;
import java.sql.Statement;
import java.time.Instant;
import java.util.ArrayList;
import java.util.Enumeration;
import java.util.HexFormat;
import java.util.List;
import java.util.TreeSet;
import java.util.regex.Pattern;
import java.util.stream.Stream;
import java.util.zip.Deflater;
import java.util.zip.ZipEntry;
import java.util.zip.ZipException;
import java.util.zip.ZipFile;
import java.util.zip.ZipOutputStream;
import org.springframework.util.FileSystemUtils;
import org.whinridge.app.shell.Durable;

/**
 * A whole installation in one file: a ZIP archive of the store, the photos and the basemaps, with a
 * manifest of their sizes and SHA-256 hashes as its last entry. The store goes in first, so that
 * every photo that it names lies in the folder by then.
 */
final class BackupFile {
  /** What the manifest calls itself. */
  static final String FORMAT = "whinridge-backup";

  /** The version of the format that this writes, and the highest that it reads. */
  static final int VERSION = 1;

  static final String MANIFEST = "manifest.json";
  private static final String STORE = "store/" + StoreCopier.FILE;

  /** Folders of the data folder that go along. */
  private static final List<String> FOLDERS = List.of("photos", "photos-taken-back", "basemaps");

  private static final Pattern PATH =
      Pattern.compile(
          "store/"
              + Pattern.quote(StoreCopier.FILE)
              + "|photos/[0-9a-f]{2}/[0-9a-f]{64}\\.jpg|photos-taken-back/[0-9a-f]{64}\\.jpg|basemaps/[0-9a-f-]{36}\\.tiles");

  private BackupFile() {}

  /** What came of writing or reading one. */
  record Result(int files, long bytes, String madeAt) {}

  /** A file that can't be taken as a backup; the message says why. */
  static final class Unsound extends IOException {
    private static final long serialVersionUID = 1;

    Unsound(String why) {
      super(why);
    }
  }

  /**
   * Writes one. Nothing is left at its place when that fails.
   *
   * @param data the data folder
   * @param store a sound copy of the store, as {@link StoreCopier} makes it
   * @throws IOException when it can't be written, such as on a full disk
   */
  static Result write(Path data, Path store, Path to, Instant now) throws IOException {
    Path part = to.resolveSibling(to.getFileName() + ".part");
    Path beside = Files.createTempDirectory(data, "backup");
    try {
      Path unpacked = beside.resolve(StoreCopier.FILE);
      StoreCopier.unpack(store, unpacked);
      JsonArray files = new JsonArray();
      long bytes = 0;
      try (OutputStream file = Files.newOutputStream(part);
          ZipOutputStream zip = new ZipOutputStream(file)) {
        zip.setLevel(Deflater.BEST_SPEED);
        bytes += add(zip, unpacked, STORE, files);
        for (String folder : FOLDERS)
          for (Path p : all(data.resolve(folder))) {
            String path = data.relativize(p).toString().replace('\\', '/');
            if (!PATH.matcher(path).matches()) continue; // parts of what is arriving
            try {
              bytes += add(zip, p, path, files);
            } catch (NoSuchFileException gone) {
              continue; // taken away just now; the store that went in does not need it for long
            }
          }
        JsonObject manifest =
            new JsonObject()
                .add("format", FORMAT)
                .add("version", VERSION)
                .add("tables", tables(beside.resolve(StoreCopier.STORE)))
                .add("madeAt", now.toString())
                .add("files", files);
        zip.putNextEntry(new ZipEntry(MANIFEST));
        zip.write(manifest.toString().getBytes(StandardCharsets.UTF_8));
        zip.closeEntry();
      }
      Durable.sync(part, StandardOpenOption.WRITE);
      Files.move(part, to, StandardCopyOption.ATOMIC_MOVE, StandardCopyOption.REPLACE_EXISTING);
      return new Result(files.size(), bytes, now.toString());
    } finally {
      Files.deleteIfExists(part);
      FileSystemUtils.deleteRecursively(beside);
    }
  }

  private static List<Path> all(Path folder) throws IOException {
    if (!Files.isDirectory(folder)) return List.of();
    try (Stream<Path> files = Files.walk(folder)) {
      return files.filter(Files::isRegularFile).sorted().toList();
    }
  }

  private static long add(ZipOutputStream zip, Path file, String path, JsonArray files)
      throws IOException {
    MessageDigest hash = sha256();
    long bytes;
    try (InputStream in = Files.newInputStream(file)) {
      zip.putNextEntry(new ZipEntry(path));
      bytes = in.transferTo(new DigestOutputStream(zip, hash));
      zip.closeEntry();
    }
    files.add(
        new JsonObject()
            .add("path", path)
            .add("bytes", bytes)
            .add("sha256", HexFormat.of().formatHex(hash.digest())));
    return bytes;
  }

  private static MessageDigest sha256() {
    try {
      return MessageDigest.getInstance("SHA-256");
    } catch (NoSuchAlgorithmException e) {
      throw new IllegalStateException(e);
    }
  }

  /** By which migration the tables of a store are. */
  private static int tables(Path store) throws IOException {
    String url = "jdbc:h2:file:" + store.toAbsolutePath() + ";IFEXISTS=TRUE;ACCESS_MODE_DATA=r";
    try (Connection c = DriverManager.getConnection(url, "whinridge", "");
        Statement s = c.createStatement();
        ResultSet r =
            s.executeQuery(
                "select max(cast(\"version\" as int)) from \"flyway_schema_history\" where \"success\"")) {
      return r.next() ? r.getInt(1) : 0;
    } catch (SQLException e) {
      throw new Unsound("its store can't be opened: " + e.getMessage());
    }
  }

  /**
   * Reads one into an empty data folder. All is looked at before anything is put in its place.
   *
   * @param newest the newest migration that this version knows
   * @throws Unsound when the file is no backup, a newer one, or damaged; the folder is as it was
   */
  static Result read(Path from, Path data, int newest) throws IOException {
    if (Files.exists(data.resolve(StoreCopier.FILE)))
      throw new Unsound(
          "There is a store in "
              + data
              + " already. A backup is restored into an empty folder only; move that one away first.");
    Files.createDirectories(data);
    Path beside = Files.createTempDirectory(data, "restore");
    try (ZipFile zip = new ZipFile(from.toFile())) {
      JsonObject manifest = manifest(zip);
      if (manifest.getInt("tables", Integer.MAX_VALUE) > newest)
        throw new Unsound(
            "It was made by a newer version of Whinridge. Install that version, or a later one, and restore there.");
      List<String> paths = new ArrayList<>();
      long bytes = 0;
      for (JsonValue v : manifest.get("files").asArray()) {
        bytes += unpack(zip, v.asObject(), beside);
        paths.add(v.asObject().getString("path", ""));
      }
      nothingElse(zip, paths);
      if (!paths.contains(STORE)) throw new Unsound("It has no store in it.");
      StoreCopier.sound(beside.resolve("store").resolve(StoreCopier.STORE));
      put(beside, data, paths);
      return new Result(paths.size(), bytes, manifest.getString("madeAt", ""));
    } catch (ZipException | UnsupportedOperationException | ParseException e) {
      throw new Unsound("It is no backup of Whinridge, or its end is missing: " + e.getMessage());
    } finally {
      FileSystemUtils.deleteRecursively(beside);
    }
  }

  private static JsonObject manifest(ZipFile zip) throws IOException {
    ZipEntry e = zip.getEntry(MANIFEST);
    if (e == null) throw new Unsound("It is no backup of Whinridge: it has no manifest.");
    JsonObject out;
    try (InputStream in = zip.getInputStream(e)) {
      out = Json.parse(new String(in.readAllBytes(), StandardCharsets.UTF_8)).asObject();
    }
    if (!out.getString("format", "").equals(FORMAT) || out.get("files") == null)
      throw new Unsound("It is no backup of Whinridge: its manifest says something else.");
    if (out.getInt("version", Integer.MAX_VALUE) > VERSION)
      throw new Unsound(
          "It was made by a newer version of Whinridge. Install that version, or a later one, and restore there.");
    return out;
  }

  private static long unpack(ZipFile zip, JsonObject file, Path beside) throws IOException {
    String path = file.getString("path", "");
    if (!PATH.matcher(path).matches())
      throw new Unsound("It names a file that can't be one: " + path);
    ZipEntry e = zip.getEntry(path);
    if (e == null) throw new Unsound(path + " is missing in it.");
    Path to = beside.resolve(path);
    Files.createDirectories(to.getParent());
    MessageDigest hash = sha256();
    long bytes;
    try (InputStream in = new DigestInputStream(zip.getInputStream(e), hash)) {
      bytes = Files.copy(in, to);
    }
    boolean same =
        bytes == file.getLong("bytes", -1)
            && HexFormat.of().formatHex(hash.digest()).equals(file.getString("sha256", ""));
    if (!same) throw new Unsound(path + " is damaged in it: its hash is another one.");
    return bytes;
  }

  private static void nothingElse(ZipFile zip, List<String> paths) throws Unsound {
    TreeSet<String> others = new TreeSet<>();
    for (Enumeration<? extends ZipEntry> all = zip.entries(); all.hasMoreElements(); )
      others.add(all.nextElement().getName());
    paths.forEach(others::remove);
    others.remove(MANIFEST);
    if (!others.isEmpty())
      throw new Unsound("It holds what its manifest does not name: " + others.first());
  }

  /** The store is put in its place last: without it nothing starts on half a restore. */
  private static void put(Path beside, Path data, List<String> paths) throws IOException {
    for (String path : paths) {
      if (path.equals(STORE)) continue;
      Path to = data.resolve(path);
      Files.createDirectories(to.getParent());
      Files.move(beside.resolve(path), to, StandardCopyOption.REPLACE_EXISTING);
    }
    Path store = beside.resolve(STORE);
    Durable.sync(store, StandardOpenOption.WRITE);
    Files.move(store, data.resolve(StoreCopier.FILE), StandardCopyOption.ATOMIC_MOVE);
  }

  /** What went wrong with a file, in words: a full disk says so itself. */
  static String why(IOException e) {
    return e instanceof FileSystemException f && f.getReason() != null
        ? f.getReason() + " (" + f.getFile() + ")"
        : e.getMessage();
  }
}
