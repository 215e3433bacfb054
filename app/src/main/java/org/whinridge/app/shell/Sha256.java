package org.whinridge.app.shell;

import java.io.IOException;
import java.io.InputStream;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.security.MessageDigest;
import java.security.NoSuchAlgorithmException;
import java.util.HexFormat;

/** Content hashes (FIPS 180-4, SHA-256) as 64 lower-case hexadecimal digits. */
public final class Sha256 {
  private Sha256() {}

  /** The hash of some bytes. */
  public static String of(byte[] bytes) {
    return HexFormat.of().formatHex(digest().digest(bytes));
  }

  /** The hash of a text's UTF-8 bytes. */
  public static String of(String text) {
    return of(text.getBytes(StandardCharsets.UTF_8));
  }

  /** The hash of a file, read as a stream. */
  public static String of(Path file) throws IOException {
    MessageDigest d = digest();
    byte[] buffer = new byte[65536];
    try (InputStream in = Files.newInputStream(file)) {
      for (int n = in.read(buffer); n > 0; n = in.read(buffer)) d.update(buffer, 0, n);
    }
    return HexFormat.of().formatHex(d.digest());
  }

  private static MessageDigest digest() {
    try {
      return MessageDigest.getInstance("SHA-256");
    } catch (NoSuchAlgorithmException e) {
      throw new IllegalStateException(e); // every JDK has SHA-256
    }
  }
}
