package org.whinridge.formats.xlsx;

import java.io.IOException;
import java.io.OutputStream;
import java.time.ZoneOffset;
import java.util.List;
import org.dhatim.fastexcel.Workbook;
import org.dhatim.fastexcel.Worksheet;
import org.whinridge.core.layer.Feature;
import org.whinridge.core.place.GeometryKind;
import org.whinridge.core.text.Numbers;
import org.whinridge.core.value.Value;
import org.whinridge.formats.csv.CsvWriter;
import org.whinridge.formats.file.CantWrite;
import org.whinridge.formats.out.LayerWriter;
import org.whinridge.formats.out.OutColumns;
import org.whinridge.formats.out.OutLayer;

/** Writes layers as sheets of an Excel workbook (ISO/IEC 29500); text is never a formula. */
public final class XlsxWriter implements AutoCloseable {
  /** The most rows that a sheet may have, the names included. */
  public static final int MOST_ROWS = 1_048_576;

  private static final int LONGEST = 32_767;
  private final Workbook book;

  /** Begins a workbook. */
  public XlsxWriter(OutputStream out) {
    book = new Workbook(out, "Whinridge", "1.0");
  }

  /** Begins a sheet; end it before the next one. */
  public LayerWriter layer(OutLayer layer, boolean wkt) {
    return new SheetWriter(book.newWorksheet(sheetName(layer.name())), layer, wkt);
  }

  private static String sheetName(String s) {
    String clean = s.replaceAll("[\\\\/?*\\[\\]:']", " ").strip();
    return clean.isEmpty() ? "Layer" : clean.substring(0, Math.min(31, clean.length()));
  }

  @Override
  public void close() throws IOException {
    book.finish();
  }

  private static final class SheetWriter implements LayerWriter {
    private final Worksheet sheet;
    private final OutLayer layer;
    private final List<OutColumns.Column> columns;
    private final boolean wkt;
    private int row;

    SheetWriter(Worksheet sheet, OutLayer layer, boolean wkt) {
      this.sheet = sheet;
      this.layer = layer;
      this.columns = layer.columns();
      this.wkt = wkt || layer.schema().kind() != GeometryKind.POINT;
      int c = 0;
      head(c++, "feature_id");
      for (OutColumns.Column k : columns) head(c++, k.name());
      for (String n : CsvWriter.PlaceCells.names(layer, this.wkt)) head(c++, n);
      sheet.freezePane(0, 1);
    }

    private void head(int column, String name) {
      sheet.value(0, column, name);
      sheet.style(0, column).bold().set();
    }

    @Override
    public void add(Feature f) throws IOException {
      if (++row >= MOST_ROWS) throw new CantWrite("file.write.sheetRows", "most", MOST_ROWS - 1);
      int c = 0;
      sheet.value(row, c++, f.id());
      for (OutColumns.Column k : columns) put(c++, k.of(f), f);
      for (String s : CsvWriter.PlaceCells.texts(layer, f, wkt)) {
        var d = wkt ? java.util.OptionalDouble.empty() : Numbers.read(s);
        if (d.isPresent()) sheet.value(row, c++, d.getAsDouble());
        else text(c++, s, f);
      }
      if (row % 1000 == 0) sheet.flush();
    }

    private void put(int c, Value v, Feature f) throws IOException {
      if (v.isEmpty()) return;
      if (v instanceof Value.Num n) sheet.value(row, c, n.value());
      else if (v instanceof Value.Bool b) sheet.value(row, c, b.value());
      else if (v instanceof Value.Day d
          && d.value().getYear() > 1900
          && d.value().getYear() < 9999) {
        sheet.value(row, c, d.value());
        sheet.style(row, c).format("yyyy-mm-dd").set();
      } else if (v instanceof Value.Moment m && m.value().getNano() == 0) {
        sheet.value(row, c, m.value().atZone(ZoneOffset.UTC).toLocalDateTime());
        sheet.style(row, c).format("yyyy-mm-dd hh:mm:ss").set();
      } else text(c, OutColumns.text(v), f);
    }

    private void text(int c, String s, Feature f) throws IOException {
      if (s.length() > LONGEST)
        throw new CantWrite(
            "file.write.cell",
            "most",
            LONGEST,
            "feature",
            layer.schema().caption(f.values()),
            "n",
            s.length());
      if (!s.isEmpty()) sheet.value(row, c, s);
    }

    @Override
    public void close() throws IOException {
      sheet.finish();
    }
  }
}
