package org.whinridge.bench;

import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Instant;
import java.time.LocalDate;
import java.util.Arrays;
import java.util.Locale;
import org.whinridge.core.layer.LayerScope;
import org.whinridge.core.read.Clock;
import org.whinridge.core.read.Filter;
import org.whinridge.core.read.LayerColumns;
import org.whinridge.core.rules.Rule;
import org.whinridge.core.rules.Rules;
import org.whinridge.formats.Sources;
import org.whinridge.formats.geopackage.GeoPackageWriter;
import org.whinridge.formats.out.LayerWriter;
import org.whinridge.formats.out.OutLayer;

/**
 * A million points in the read model, filtered, and taken out as GeoPackage; each beside a baseline
 * of the same run: a plain loop over arrays, and GDAL's ogr2ogr on the same file. {@code
 * bench/data} runs it.
 */
public final class LayerFiles {
  private static final int RUNS = 5;

  private LayerFiles() {}

  /** Runs all; the first argument is a folder for the files. */
  public static void main(String[] args) throws Exception {
    Path folder = Files.createDirectories(Path.of(args[0]));
    LayerColumns.Builder rows = new LayerColumns.Builder(MillionPoints.SCHEMA);
    LayerColumns[] made = new LayerColumns[1];
    double built =
        seconds(
            () -> {
              MillionPoints.each(rows::add);
              made[0] = rows.build();
            });
    LayerColumns layer = made[0];
    System.out.printf(
        Locale.ROOT,
        "read model of %,d features with %d fields, with its indexes: %.1f s, %d bytes a feature%n",
        layer.count(),
        MillionPoints.SCHEMA.fields().size(),
        built,
        layer.bytes() / layer.count());
    filter(layer);
    edited(layer);
    export(layer, folder);
  }

  private interface Work {
    void run() throws Exception;
  }

  private static double seconds(Work w) throws Exception {
    long t = System.nanoTime();
    w.run();
    return (System.nanoTime() - t) / 1e9;
  }

  private static double median(Work w, int runs) throws Exception {
    double[] all = new double[runs];
    for (int i = 0; i < runs; i++) all[i] = seconds(w);
    Arrays.sort(all);
    return all[runs / 2];
  }

  /**
   * What the next state costs after one feature was changed, beside copying the model's columns.
   */
  private static void edited(LayerColumns layer) throws Exception {
    org.whinridge.core.layer.Feature f = layer.feature(layer.rows() / 2);
    double next = median(() -> layer.with(java.util.List.of(f), java.util.List.of()), RUNS);
    double[] bare = new double[layer.rows() * MillionPoints.SCHEMA.fields().size()];
    double copy = median(() -> bare.clone(), RUNS);
    System.out.printf(
        Locale.ROOT,
        "the next state after one edit: %.1f ms; copying the columns: %.1f ms; ratio %.2f%n",
        next * 1000,
        copy * 1000,
        next / copy);
  }

  private static void filter(LayerColumns layer) throws Exception {
    Rule rule =
        Rules.condition("width_mm > 900 AND kind = 'sluice'", new LayerScope(layer.schema()))
            .rule()
            .orElseThrow();
    Clock clock = new Clock(LocalDate.EPOCH, Instant.EPOCH);
    double[] widths = new double[layer.rows()];
    int[] kinds = new int[layer.rows()];
    var w = (org.whinridge.core.read.NumberColumn) layer.column("width_mm").orElseThrow();
    var k = (org.whinridge.core.read.DictionaryColumn) layer.column("kind").orElseThrow();
    for (int row = 0; row < widths.length; row++) {
      widths[row] = w.number(row);
      kinds[row] = k.number(row);
    }
    int found = 0;
    while (!k.distinct(found).plain().equals("sluice")) found++;
    int sluice = found;
    int[] counts = new int[2];
    Work plain =
        () -> {
          java.util.BitSet b = new java.util.BitSet(widths.length);
          for (int i = 0; i < widths.length; i++)
            if (widths[i] > 900 && kinds[i] == sluice) b.set(i);
          counts[0] = b.cardinality();
        };
    Work ours = () -> counts[1] = Filter.count(rule, layer, clock);
    for (int i = 0; i < 20; i++) {
      plain.run();
      ours.run();
    }
    double a = median(plain, 31);
    double b = median(ours, 31);
    if (counts[0] != counts[1]) throw new IllegalStateException("the filters disagree");
    System.out.printf(
        Locale.ROOT,
        "filter of two comparisons over %,d: %.2f ms, plain loop over arrays %.2f ms, ratio %.2f%n",
        layer.rows(),
        b * 1000,
        a * 1000,
        b / a);
  }

  private static void export(LayerColumns layer, Path folder) throws Exception {
    Path ours = folder.resolve("million.gpkg");
    Path theirs = folder.resolve("by-gdal.gpkg");
    double[] a = new double[RUNS];
    double[] b = new double[RUNS];
    for (int i = 0; i < RUNS; i++) {
      Files.deleteIfExists(ours);
      Files.deleteIfExists(theirs);
      a[i] = seconds(() -> write(layer, ours));
      b[i] =
          seconds(
              () -> {
                int code =
                    new ProcessBuilder("ogr2ogr", theirs.toString(), ours.toString())
                        .inheritIO()
                        .start()
                        .waitFor();
                if (code != 0) throw new IllegalStateException("ogr2ogr ended with " + code);
              });
    }
    Arrays.sort(a);
    Arrays.sort(b);
    System.out.printf(
        Locale.ROOT,
        "%,d points to GeoPackage: %.1f s, ogr2ogr on the same file %.1f s, ratio %.2f%n",
        layer.count(),
        a[RUNS / 2],
        b[RUNS / 2],
        a[RUNS / 2] / b[RUNS / 2]);
    int[] n = {0};
    double read =
        seconds(
            () -> {
              var s =
                  Sources.open(java.util.List.of(new Sources.Brought("million.gpkg", ours)), folder)
                      .sources()
                      .get(0);
              s.each(s.layers().get(0), f -> n[0]++);
            });
    System.out.printf(Locale.ROOT, "read again: %,d features in %.1f s%n", n[0], read);
  }

  private static void write(LayerColumns layer, Path file) throws Exception {
    try (GeoPackageWriter g = new GeoPackageWriter(file);
        LayerWriter w = g.layer(OutLayer.of("Million", layer.schema()))) {
      for (int row = 0; row < layer.rows(); row++) if (layer.has(row)) w.add(layer.feature(row));
    }
  }
}
