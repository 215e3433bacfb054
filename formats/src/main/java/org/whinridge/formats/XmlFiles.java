package org.whinridge.formats;

import java.io.InputStream;
import javax.xml.stream.XMLInputFactory;
import javax.xml.stream.XMLStreamException;
import javax.xml.stream.XMLStreamReader;

/** XML from outside: the JDK's own reader, without document types and without entities. */
final class XmlFiles {
  private XmlFiles() {}

  static XMLStreamReader open(InputStream in) throws XMLStreamException {
    XMLInputFactory f = XMLInputFactory.newDefaultFactory();
    f.setProperty(XMLInputFactory.SUPPORT_DTD, false);
    f.setProperty(XMLInputFactory.IS_SUPPORTING_EXTERNAL_ENTITIES, false);
    f.setProperty(XMLInputFactory.IS_COALESCING, true);
    return f.createXMLStreamReader(in);
  }

  static FileProblem problem(XMLStreamException e) {
    var at = e.getLocation();
    String why =
        String.valueOf(e.getMessage()).replaceAll("(?s).*Message: ", "").replaceAll("\\s+", " ");
    return new FileProblem(
        "This is not sound XML"
            + (at == null
                ? ""
                : ": line " + at.getLineNumber() + ", column " + at.getColumnNumber())
            + ", "
            + Limits.cut(why, 160)
            + ".",
        e);
  }

  /** The text of the element at the reader's place, at most {@link Limits#TEXT} characters. */
  static String text(XMLStreamReader x) throws XMLStreamException, FileProblem {
    StringBuilder b = new StringBuilder();
    int depth = 1;
    while (depth > 0) {
      int e = x.next();
      if (e == XMLStreamReader.START_ELEMENT) depth++;
      else if (e == XMLStreamReader.END_ELEMENT) depth--;
      else if (e == XMLStreamReader.CHARACTERS || e == XMLStreamReader.CDATA) {
        b.append(x.getText());
        if (b.length() > 20 * Limits.TEXT)
          throw new FileProblem(
              "Line "
                  + x.getLocation().getLineNumber()
                  + " has a text of more than 20,000,000 characters.");
      }
    }
    return b.toString().strip();
  }

  /** Leaves the element at the reader's place unread. */
  static void skip(XMLStreamReader x) throws XMLStreamException {
    int depth = 1;
    while (depth > 0) {
      int e = x.next();
      if (e == XMLStreamReader.START_ELEMENT) depth++;
      else if (e == XMLStreamReader.END_ELEMENT) depth--;
    }
  }
}
