package org.whinridge.core.value;

/**
 * Case and accents folded by an own table, the same on every engine: Latin-1, Latin Extended-A and
 * the usual ligatures.
 */
public final class Fold {
  private static final String FROM =
      "ÀÁÂÃÄÅÇÈÉÊËÌÍÎÏÑÒÓÔÕÖØÙÚÛÜÝàáâãäåçèéêëìíîïñòóôõöøùúûüýÿĀāĂăĄąĆćĈĉĊċČčĎďĐđĒēĔĕĖėĘęĚěĜĝĞğĠġĢģĤĥĦħĨĩĪīĬĭĮįİıĴĵĶķĹĺĻļĽľŁłŃńŅņŇňŌōŎŏŐőŔŕŖŗŘřŚśŜŝŞşŠšŢţŤťŦŧŨũŪūŬŭŮůŰűŲųŴŵŶŷŸŹźŻżŽž";
  private static final String TO =
      "AAAAAACEEEEIIIINOOOOOOUUUUYaaaaaaceeeeiiiinoooooouuuuyyAaAaAaCcCcCcCcDdDdEeEeEeEeEeGgGgGgGgHhHhIiIiIiIiIiJjKkLlLlLlLlNnNnNnOoOoOoRrRrRrSsSsSsSsTtTtTtUuUuUuUuUuUuWwYyYZzZzZz";

  private Fold() {}

  /** The text without accents: "Łąka" gives "Laka". Letters outside the table stay as they are. */
  public static String accents(String s) {
    StringBuilder b = new StringBuilder(s.length());
    for (int i = 0; i < s.length(); i++) {
      char c = s.charAt(i);
      int at = c < 0xC0 ? -1 : FROM.indexOf(c);
      if (at >= 0) b.append(TO.charAt(at));
      else if (c == 'ß') b.append("ss");
      else if (c == 'Æ') b.append("AE");
      else if (c == 'æ') b.append("ae");
      else if (c == 'Œ') b.append("OE");
      else if (c == 'œ') b.append("oe");
      else b.append(c);
    }
    return b.toString();
  }

  /** The text in lower case, character by character. */
  public static String lower(String s) {
    StringBuilder b = new StringBuilder(s.length());
    for (int i = 0; i < s.length(); i++) b.append(Character.toLowerCase(s.charAt(i)));
    return b.toString();
  }

  /** The text in upper case, character by character; ß stays. */
  public static String upper(String s) {
    StringBuilder b = new StringBuilder(s.length());
    for (int i = 0; i < s.length(); i++) b.append(Character.toUpperCase(s.charAt(i)));
    return b.toString();
  }
}
