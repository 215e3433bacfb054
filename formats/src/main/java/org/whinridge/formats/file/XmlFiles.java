package org.whinridge.formats.file;

import java.io.InputStream;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import javax.xml.stream.XMLInputFactory;
import javax.xml.stream.XMLStreamException;
import javax.xml.stream.XMLStreamReader;

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

  /** What is wrong with the file, and where, in words for whoever made it. */
  public static FileProblem problem(XMLStreamException e) {
    var at = e.getLocation();
    return new FileProblem(
        "This is not sound XML"
            + (at == null
                ? ""
                : ": line " + at.getLineNumber() + ", column " + at.getColumnNumber())
            + ", "
            + plain(String.valueOf(e.getMessage()))
            + ".",
        e);
  }

  /** What is wrong, in words for whoever made the file. */
  private static String plain(String said) {
    Matcher open = UNCLOSED.matcher(said);
    if (open.find()) return "“" + open.group(1) + "” is not closed";
    Matcher entity = ENTITY.matcher(said);
    if (entity.find())
      return "“&" + entity.group(1) + ";” is not defined in it; nothing outside the file is read";
    if (said.contains("must start and end within the same entity")
        || said.contains("Premature end of file")
        || said.contains("end of file")) return "the file ends too early";
    if (said.contains("DOCTYPE")) return "its document type is not read";
    if (said.contains("invalid XML character") || said.contains("UTF-8"))
      return "a sign stands here that XML can't hold";
    if (said.contains("trailing section") || said.contains("following the root"))
      return "something follows its end";
    return "what stands here is no XML";
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
          throw new FileProblem(
              "Line "
                  + x.getLocation().getLineNumber()
                  + " has a text of more than 20,000,000 characters.");
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
