package org.whinridge.formats.file;

import java.io.BufferedInputStream;
import java.io.IOException;
import java.io.InputStream;
import java.nio.ByteBuffer;
import java.nio.CharBuffer;
import java.nio.charset.Charset;
import java.nio.charset.CharsetDecoder;
import java.nio.charset.CoderResult;
import java.nio.charset.CodingErrorAction;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import org.whinridge.core.said.Said;

/** Which encoding texts have: by mark, by name, by language driver, by trying. */
public final class Encodings {
  /** What a text without a mark is read in when it is not UTF-8. */
  public static final Charset WESTERN = Charset.forName("windows-1252");

  // language drivers of .dbf headers; common practice, no source
  private static final Map<Integer, String> DRIVERS =
      Map.of(
          0x01,
          "IBM437",
          0x02,
          "IBM850",
          0x03,
          "windows-1252",
          0x57,
          "windows-1252",
          0x58,
          "windows-1252",
          0xC8,
          "windows-1250",
          0xC9,
          "windows-1251",
          0x65,
          "IBM866",
          0x13,
          "windows-31j",
          0x4D,
          "GBK");

  /** An encoding and how it was found. */
  public record Found(Charset charset, Said how) {
    /** The encoding and how it was found, to be told. */
    public Said said() {
      return Said.of("file.encoding.found", "encoding", charset.name(), "how", how);
    }
  }

  private Encodings() {}

  /** By the name that a .cpg has: "UTF-8", "1252", "ANSI 1252", "ISO 88591". */
  public static Optional<Charset> named(String cpg) {
    String s = cpg.replace("\uFEFF", "").strip().toUpperCase(Locale.ROOT);
    s = s.replaceFirst("^(ANSI|OEM|CP|WINDOWS|LDID)[ _-]?(\\d+)$", "$2");
    s = s.replaceFirst("^ISO[ _-]?8859[ _-]?(\\d+)$", "ISO-8859-$1");
    if (s.equals("65001") || s.equals("UTF8")) s = "UTF-8";
    if (s.matches("\\d{3,5}"))
      s =
          s.startsWith("125") && s.length() == 4
              ? "windows-" + s
              : s.equals("88591") ? "ISO-8859-1" : "IBM" + s;
    try {
      return Optional.of(Charset.forName(s));
    } catch (IllegalArgumentException e) {
      return Optional.empty(); // an encoding that this machine does not know: found otherwise
    }
  }

  /** By the language driver byte of a .dbf. */
  public static Optional<Charset> driver(int id) {
    String name = DRIVERS.get(id);
    return name != null && Charset.isSupported(name)
        ? Optional.of(Charset.forName(name))
        : Optional.empty();
  }

  /** By its mark, else UTF-8 if all of it is sound UTF-8, else windows-1252. */
  public static Found of(Path file) throws IOException {
    try (InputStream in = new BufferedInputStream(Files.newInputStream(file), 1 << 16)) {
      byte[] head = in.readNBytes(4);
      if (head.length > 2
          && (head[0] & 255) == 0xEF
          && (head[1] & 255) == 0xBB
          && (head[2] & 255) == 0xBF)
        return new Found(StandardCharsets.UTF_8, Said.of("file.encoding.mark"));
      if (head.length > 1 && (head[0] & 255) == 0xFF && (head[1] & 255) == 0xFE)
        return new Found(StandardCharsets.UTF_16LE, Said.of("file.encoding.mark"));
      if (head.length > 1 && (head[0] & 255) == 0xFE && (head[1] & 255) == 0xFF)
        return new Found(StandardCharsets.UTF_16BE, Said.of("file.encoding.mark"));
    }
    try (InputStream in = Files.newInputStream(file)) {
      return isUtf8(in)
          ? new Found(StandardCharsets.UTF_8, Said.of("file.encoding.reads"))
          : new Found(WESTERN, Said.of("file.encoding.notUtf8"));
    }
  }

  /** Whether a stream is sound UTF-8 to its end. */
  public static boolean isUtf8(InputStream in) throws IOException {
    CharsetDecoder d =
        StandardCharsets.UTF_8
            .newDecoder()
            .onMalformedInput(CodingErrorAction.REPORT)
            .onUnmappableCharacter(CodingErrorAction.REPORT);
    ByteBuffer bytes = ByteBuffer.allocate(1 << 16);
    CharBuffer chars = CharBuffer.allocate(1 << 16);
    for (int n = in.read(bytes.array(), 0, bytes.capacity());
        n >= 0;
        n = in.read(bytes.array(), bytes.position(), bytes.remaining())) {
      bytes.position(bytes.position() + n).flip();
      chars.clear();
      CoderResult r = d.decode(bytes, chars, false);
      if (r.isError()) return false;
      bytes.compact();
      if (!bytes.hasRemaining()) return false;
    }
    bytes.flip();
    chars.clear();
    return !d.decode(bytes, chars, true).isError();
  }
}
