package org.whinridge.formats.look;

/** Writes XML. */
final class Xml {
  private final StringBuilder b = new StringBuilder("<?xml version=\"1.0\" encoding=\"UTF-8\"?>\n");

  /** An element with what {@code inside} writes; attributes as name, value, name, value. */
  void in(String name, Runnable inside, String... attributes) {
    b.append('<').append(name);
    for (int i = 0; i < attributes.length; i += 2)
      b.append(' ')
          .append(attributes[i])
          .append("=\"")
          .append(escaped(attributes[i + 1]))
          .append('"');
    b.append('>');
    inside.run();
    b.append("</").append(name).append(">");
  }

  /** An element with text. */
  void text(String name, String text, String... attributes) {
    in(name, () -> write(text), attributes);
  }

  /** Text; characters that XML can't hold are left out. */
  void write(String text) {
    b.append(escaped(text));
  }

  /** XML that is sound by itself. */
  void raw(String xml) {
    b.append(xml);
  }

  /** A comment. */
  void comment(String text) {
    b.append("<!-- ").append(escaped(text).replace("--", "- -")).append(" -->");
  }

  /** Text as it stands in XML. */
  static String escaped(String s) {
    StringBuilder out = new StringBuilder(s.length());
    s.codePoints()
        .filter(
            c ->
                c == '\t'
                    || c == '\n'
                    || c >= 0x20 && c != 0xfffe && c != 0xffff && !(c >= 0xd800 && c < 0xe000))
        .forEach(
            c -> {
              switch (c) {
                case '<' -> out.append("&lt;");
                case '>' -> out.append("&gt;");
                case '&' -> out.append("&amp;");
                case '"' -> out.append("&quot;");
                default -> out.appendCodePoint(c);
              }
            });
    return out.toString();
  }

  @Override
  public String toString() {
    return b.append('\n').toString();
  }
}
