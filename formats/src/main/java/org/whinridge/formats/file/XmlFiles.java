package org.whinridge.formats.file;

import java.io.InputStream;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import javax.xml.stream.XMLInputFactory;
import javax.xml.stream.XMLStreamException;
import javax.xml.stream.XMLStreamReader;
import org.whinridge.core.said.Said;

/** XML from outside: the JDK's own reader, without document types and without entities. */
public final class XmlFiles {
  private static final Pattern UNCLOSED =
      Pattern.compile("element type \"([^\"]{1,60})\" must be terminated");
  private static final Pattern ENTITY = Pattern.compile("entity \"([^\"]{1,60})\" was referenced");

  private XmlFiles() {}

  /** A reader that fetches nothing and reads no document type. */
  public static XMLStreamReader open(InputStream in) throws XMLStreamException {
    XMLInputFactory f = XMLInputFactory.newDefaultFactory();
    f.setProperty(XMLInputFactory.SUPPORT_DTD, false);
    f.setProperty(XMLInputFactory.IS_SUPPORTING_EXTERNAL_ENTITIES, false);
    f.setProperty(XMLInputFactory.IS_COALESCING, true);
    return f.createXMLStreamReader(in);
  }

  /** What is wrong with the file, and where, for whoever made it. */
  public static FileProblem problem(XMLStreamException e) {
    var at = e.getLocation();
    return new FileProblem(
            at == null ? "file.xml" : "file.xmlAt",
            "line",
            at == null ? 0 : at.getLineNumber(),
            "column",
            at == null ? 0 : at.getColumnNumber(),
            "why",
            plain(String.valueOf(e.getMessage())))
        .because(e);
  }

  /** What is wrong, for whoever made the file. */
  private static Said plain(String said) {
    Matcher open = UNCLOSED.matcher(said);
    if (open.find()) return Said.of("file.why.notClosed", "name", open.group(1));
    Matcher entity = ENTITY.matcher(said);
    if (entity.find()) return Said.of("file.why.entity", "name", entity.group(1));
    if (said.contains("must start and end within the same entity")
        || said.contains("Premature end of file")
        || said.contains("end of file")) return Said.of("file.why.ends");
    if (said.contains("DOCTYPE")) return Said.of("file.why.docType");
    if (said.contains("invalid XML character") || said.contains("UTF-8"))
      return Said.of("file.why.sign");
    if (said.contains("trailing section") || said.contains("following the root"))
      return Said.of("file.why.follows");
    return Said.of("file.why.noXml");
  }

  /** The text of the element at the reader's place, at most {@link Limits#TEXT} characters. */
  public static String text(XMLStreamReader x) throws XMLStreamException, FileProblem {
    StringBuilder b = new StringBuilder();
    int depth = 1;
    while (depth > 0) {
      int e = x.next();
      if (e == XMLStreamReader.START_ELEMENT) depth++;
      else if (e == XMLStreamReader.END_ELEMENT) depth--;
      else if (e == XMLStreamReader.CHARACTERS || e == XMLStreamReader.CDATA) {
        b.append(x.getText());
        if (b.length() > 20 * Limits.TEXT)
          throw new FileProblem("file.textTooLong", "line", x.getLocation().getLineNumber());
      }
    }
    return b.toString().strip();
  }

  /** Leaves the element at the reader's place unread. */
  public static void skip(XMLStreamReader x) throws XMLStreamException {
    int depth = 1;
    while (depth > 0) {
      int e = x.next();
      if (e == XMLStreamReader.START_ELEMENT) depth++;
      else if (e == XMLStreamReader.END_ELEMENT) depth--;
    }
  }
}
