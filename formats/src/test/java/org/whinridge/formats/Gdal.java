package org.whinridge.formats;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import org.whinridge.formats.source.RawFeature;
import org.whinridge.formats.source.Source;

/** GDAL and PROJ of Debian (gdal-bin, proj-bin), an independent reader and writer. */
public final class Gdal {
  private Gdal() {}

  /** Runs a program; its output, which must not be a failure. */
  static String run(String... command) throws Exception {
    return fed("", command);
  }

  static String fed(String input, String... command) throws Exception {
    Optional<String> out = tried(input, command);
    assertThat(out).as(String.join(" ", command)).isPresent();
    return out.get();
  }

  /** The output of a program; empty when it failed. */
  static Optional<String> tried(String input, String... command) throws Exception {
    Process p = new ProcessBuilder(command).redirectErrorStream(true).start();
    p.getOutputStream().write(input.getBytes(StandardCharsets.UTF_8));
    p.getOutputStream().close();
    String out = new String(p.getInputStream().readAllBytes(), StandardCharsets.UTF_8);
    if (p.waitFor() == 0) return Optional.of(out);
    System.out.println(String.join(" ", command) + "\n" + out);
    return Optional.empty();
  }

  /** All that ogrinfo says of a file. */
  public static String info(Path file, String... more) throws Exception {
    List<String> c = new ArrayList<>(List.of("ogrinfo", "-al", "-ro"));
    c.addAll(List.of(more));
    c.add(file.toString());
    return run(c.toArray(new String[0]));
  }

  /** Turns a file into another format. */
  public static void convert(Path from, Path to, String... options) throws Exception {
    List<String> c = new ArrayList<>(List.of("ogr2ogr"));
    c.addAll(List.of(options));
    c.add(to.toString());
    c.add(from.toString());
    run(c.toArray(new String[0]));
  }

  /** Opens files as they would be brought. */
  public static Sources.Opened open(Path scratch, Path... files) throws Exception {
    List<Sources.Brought> brought = new ArrayList<>();
    for (Path f : files) brought.add(new Sources.Brought(f.getFileName().toString(), f));
    return Sources.open(brought, Files.createDirectories(scratch));
  }

  /** All features of the only layer of what was brought. */
  public static List<RawFeature> features(Sources.Opened opened) throws Exception {
    assertThat(opened.notUnderstood()).isEmpty();
    assertThat(opened.sources()).hasSize(1);
    Source s = opened.sources().get(0);
    List<RawFeature> out = new ArrayList<>();
    for (Source.SourceLayer l : s.layers()) s.each(l, out::add);
    return out;
  }
}
