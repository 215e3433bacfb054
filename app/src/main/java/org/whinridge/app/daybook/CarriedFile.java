package org.whinridge.app.daybook;

import com.eclipsesource.json.Json;
import com.eclipsesource.json.JsonArray;
import com.eclipsesource.json.JsonObject;
import com.eclipsesource.json.JsonValue;
import com.eclipsesource.json.ParseException;
import java.io.Closeable;
import java.io.EOFException;
import java.io.IOException;
import java.io.InputStream;
import java.io.OutputStream;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Optional;
import java.util.UUID;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import java.util.zip.ZipEntry;
import java.util.zip.ZipException;
import java.util.zip.ZipFile;
import org.whinridge.app.shell.JsonDepth;
import org.whinridge.app.shell.Refusal;

/**
 * What a device carried, given as a file: a ZIP archive with {@code hand-in.json}, which is a
 * hand-in of any length with the name of its person, and {@code photos/ID.jpg}.
 */
final class CarriedFile implements Closeable {
  private static final String FORMAT = "whinridge-carried";
  private static final int VERSION = 1;
  private static final String DOCUMENT = "hand-in.json";
  private static final int MOST_DOCUMENT = 25_000_000;
  private static final Pattern PHOTO =
      Pattern.compile("photos/([0-9a-f]{8}(?:-[0-9a-f]{4}){3}-[0-9a-f]{12})\\.jpg");
  private final ZipFile zip;
  private final JsonObject document;

  private CarriedFile(ZipFile zip, JsonObject document) {
    this.zip = zip;
    this.document = document;
  }

  /** Opens it, or refuses it in words. */
  static CarriedFile open(Path file) throws IOException {
    ZipFile zip;
    try {
      zip = new ZipFile(file.toFile());
    } catch (ZipException e) {
      throw Refusal.refused("refused.carriedNoArchive");
    }
    try {
      return new CarriedFile(zip, document(zip));
    } catch (IOException | RuntimeException e) {
      zip.close();
      throw e;
    }
  }

  private static JsonObject document(ZipFile zip) throws IOException {
    ZipEntry entry = zip.getEntry(DOCUMENT);
    if (entry == null) throw Refusal.refused("refused.carriedOther");
    byte[] text;
    try (InputStream in = zip.getInputStream(entry)) {
      text = in.readNBytes(MOST_DOCUMENT + 1);
    } catch (ZipException | EOFException e) {
      throw Refusal.refused("refused.carriedDamaged");
    }
    if (text.length > MOST_DOCUMENT)
      throw Refusal.tooLarge("refused.carriedTooLong", "mb", MOST_DOCUMENT / 1_000_000);
    String json = new String(text, StandardCharsets.UTF_8);
    if (JsonDepth.isOver(json)) throw Refusal.refused("refused.carriedDamaged");
    JsonObject o;
    try {
      o = Json.parse(json).asObject();
    } catch (ParseException | UnsupportedOperationException e) {
      throw Refusal.refused("refused.carriedDamaged");
    }
    if (!Sent.text(o, "format").equals(FORMAT)) throw Refusal.refused("refused.carriedOther");
    JsonValue version = o.get("version");
    if (version == null || !version.isNumber() || version.asDouble() != VERSION)
      throw Refusal.refused("refused.carriedNewer");
    JsonValue visits = o.get("visits");
    if (visits == null || !visits.isArray()) throw Refusal.refused("refused.carriedDamaged");
    return o;
  }

  /** Whose it is. */
  String person() {
    return Sent.text(document, "person");
  }

  /** The device, by the name that it has. */
  String device() {
    return Sent.text(document, "device");
  }

  /** The visits, each to be read by itself. */
  List<JsonValue> visits() {
    return document.get("visits").asArray().values();
  }

  /** Some of its visits as a hand-in, or a part of one. */
  JsonObject handIn(List<JsonValue> visits) {
    JsonArray list = new JsonArray();
    visits.forEach(list::add);
    JsonObject o = new JsonObject();
    for (String member : List.of("id", "device", "deviceId"))
      o.add(member, Sent.text(document, member));
    return o.add("visits", list);
  }

  /** The ids of its photos. */
  List<UUID> photos() {
    return zip.stream().flatMap(e -> idOf(e).stream()).toList();
  }

  private static Optional<UUID> idOf(ZipEntry e) {
    Matcher m = PHOTO.matcher(e.getName());
    return m.matches() ? Optional.of(UUID.fromString(m.group(1))) : Optional.empty();
  }

  /**
   * Writes a photo's bytes.
   *
   * @param most as many as it should have; not one more is read, whatever the archive says
   * @return whether it has that many at most
   */
  boolean write(UUID photo, long most, Path to) throws IOException {
    try (InputStream in = zip.getInputStream(zip.getEntry("photos/" + photo + ".jpg"));
        OutputStream out = Files.newOutputStream(to)) {
      byte[] some = new byte[64 * 1024];
      long n = 0;
      for (int read = in.read(some); read >= 0; read = in.read(some)) {
        n += read;
        if (n > most) return false;
        out.write(some, 0, read);
      }
      return true;
    } catch (ZipException | EOFException e) {
      return false; // its bytes are damaged
    }
  }

  @Override
  public void close() throws IOException {
    zip.close();
  }
}
