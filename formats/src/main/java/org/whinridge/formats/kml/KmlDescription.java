package org.whinridge.formats.kml;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import org.jsoup.Jsoup;
import org.jsoup.nodes.Document;
import org.jsoup.nodes.Element;
import org.jsoup.nodes.Node;
import org.jsoup.nodes.TextNode;
import org.jsoup.select.Elements;
import org.jsoup.select.NodeVisitor;
import org.whinridge.formats.file.Limits;

/**
 * What the description of a placemark says, which is text or HTML.
 *
 * @param text for people, without markup
 * @param pictures the references of the pictures that it shows, as written
 * @param table the rows of two cells in its tables, by the first; many programs write attributes so
 */
record KmlDescription(String text, List<String> pictures, Map<String, String> table) {
  private static final int LONGEST_NAME = 60;
  private static final String BLOCKS = " p div br tr li ul ol table h1 h2 h3 h4 h5 h6 hr ";

  static KmlDescription of(String html) {
    if (html.indexOf('<') < 0 && html.indexOf('&') < 0)
      return new KmlDescription(html, List.of(), Map.of());
    Document d = Jsoup.parseBodyFragment(Limits.cut(html, Limits.TEXT));
    d.select("script, style").remove();
    List<String> pictures = new ArrayList<>();
    for (Element img : d.select("img[src]"))
      if (pictures.size() < 100) pictures.add(img.attr("src").strip());
    return new KmlDescription(text(d.body()), pictures, table(d));
  }

  private static Map<String, String> table(Document d) {
    Map<String, String> out = new LinkedHashMap<>();
    for (Element row : d.select("tr")) {
      Elements cells = row.select("> td, > th");
      if (cells.size() != 2 || !cells.select("table").isEmpty()) continue;
      String name = cells.get(0).text().strip().replaceAll("\\s*:$", "");
      String value = cells.get(1).text().strip();
      if (name.isEmpty() || name.length() > LONGEST_NAME || out.size() >= Limits.COLUMNS / 2)
        continue;
      if (!value.isEmpty()) out.putIfAbsent(name, value);
    }
    return out;
  }

  /** The text with a line for each block; in time linear in its length, however it is nested. */
  private static String text(Element body) {
    StringBuilder b = new StringBuilder();
    body.traverse(
        new NodeVisitor() {
          @Override
          public void head(Node n, int depth) {
            if (n instanceof TextNode t) b.append(t.getWholeText());
            else if (isBlock(n)) b.append('\n');
            else if (n.nodeName().equals("td") || n.nodeName().equals("th")) b.append(' ');
          }

          @Override
          public void tail(Node n, int depth) {
            if (isBlock(n)) b.append('\n');
          }
        });
    StringBuilder out = new StringBuilder();
    for (String line : b.toString().split("\n")) {
      String s = line.replace('\u00a0', ' ').replaceAll("[ \\t\\r]+", " ").strip();
      if (!s.isEmpty()) out.append(out.length() == 0 ? "" : "\n").append(s);
    }
    return out.toString();
  }

  private static boolean isBlock(Node n) {
    return BLOCKS.contains(" " + n.nodeName() + " ");
  }
}
