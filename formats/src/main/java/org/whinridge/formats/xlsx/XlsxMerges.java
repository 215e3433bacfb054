package org.whinridge.formats.xlsx;

import java.io.IOException;
import java.io.InputStream;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import java.util.zip.ZipEntry;
import java.util.zip.ZipFile;
import javax.xml.stream.XMLStreamException;
import javax.xml.stream.XMLStreamReader;
import org.whinridge.formats.file.Limits;
import org.whinridge.formats.file.XmlFiles;

/**
 * Cells of a sheet that are merged: what the first of them says holds for all. Source: ISO/IEC
 * 29500-1, sections 18.3.1.55 (mergeCells) and 18.2.20 (sheets), from memory.
 */
record XlsxMerges(List<int[]> areas) {
  private static final Pattern AREA =
      Pattern.compile("([A-Z]{1,3})(\\d{1,7}):([A-Z]{1,3})(\\d{1,7})");
  private static final int MOST = 10_000;

  /** Of a sheet by its order in the workbook; none when the workbook does not say. */
  static XlsxMerges of(Path workbook, int sheet) throws IOException {
    try (ZipFile z = new ZipFile(workbook.toFile())) {
      List<String> ids = new ArrayList<>();
      elements(z, "xl/workbook.xml", "sheet", x -> ids.add(relation(x)));
      Map<String, String> targets = new LinkedHashMap<>();
      elements(
          z,
          "xl/_rels/workbook.xml.rels",
          "Relationship",
          x -> targets.put(x.getAttributeValue(null, "Id"), x.getAttributeValue(null, "Target")));
      String target = sheet < ids.size() ? targets.get(ids.get(sheet)) : null;
      List<int[]> out = new ArrayList<>();
      if (target != null)
        elements(
            z,
            target.startsWith("/") ? target.substring(1) : "xl/" + target,
            "mergeCell",
            x -> {
              Matcher m = AREA.matcher(String.valueOf(x.getAttributeValue(null, "ref")));
              if (m.matches() && out.size() < MOST)
                out.add(
                    new int[] {
                      Integer.parseInt(m.group(2)) - 1,
                      column(m.group(1)),
                      Integer.parseInt(m.group(4)) - 1,
                      column(m.group(3))
                    });
            });
      return new XlsxMerges(out);
    } catch (XMLStreamException e) {
      return new XlsxMerges(List.of()); // the reading itself tells of a damaged workbook
    }
  }

  private interface Use {
    void of(XMLStreamReader x);
  }

  private static void elements(ZipFile z, String entry, String name, Use use)
      throws IOException, XMLStreamException {
    ZipEntry e = z.getEntry(entry);
    if (e == null) return;
    try (InputStream in = z.getInputStream(e)) {
      XMLStreamReader x = XmlFiles.open(in);
      while (x.hasNext())
        if (x.next() == XMLStreamReader.START_ELEMENT && x.getLocalName().equals(name)) use.of(x);
    }
  }

  private static String relation(XMLStreamReader x) {
    for (int i = 0; i < x.getAttributeCount(); i++)
      if (x.getAttributeLocalName(i).equals("id") && x.getAttributePrefix(i).equals("r"))
        return x.getAttributeValue(i);
    return "";
  }

  private static int column(String letters) {
    int n = 0;
    for (char c : letters.toCharArray()) n = 26 * n + c - 'A' + 1;
    return n - 1;
  }

  /** Fills the rows, by their numbers, with what the first cell of each merged area says. */
  void fill(List<List<String>> rows) {
    for (int[] a : areas) {
      if (a[0] >= rows.size() || a[1] >= rows.get(a[0]).size()) continue;
      String text = rows.get(a[0]).get(a[1]);
      for (int r = a[0]; r <= Math.min(a[2], rows.size() - 1); r++) {
        List<String> row = new ArrayList<>(rows.get(r));
        // a title over the whole sheet is no row of names
        if (a[3] - a[1] + 1 >= row.size() && row.size() > 2) continue;
        for (int c = a[1]; c <= a[3]; c++) {
          while (row.size() <= c && c < Limits.COLUMNS) row.add("");
          if (c < row.size() && row.get(c).isBlank()) row.set(c, text);
        }
        rows.set(r, row);
      }
    }
  }
}
