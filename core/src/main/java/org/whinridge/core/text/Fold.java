package org.whinridge.core.text;

/**
 * Case and accents folded by own tables, the same on every engine; accents of Latin-1, Latin
 * Extended-A and the usual ligatures.
 */
public final class Fold {
  private static final String FROM =
      "ÀÁÂÃÄÅÇÈÉÊËÌÍÎÏÑÒÓÔÕÖØÙÚÛÜÝàáâãäåçèéêëìíîïñòóôõöøùúûüýÿĀāĂăĄąĆćĈĉĊċČčĎďĐđĒēĔĕĖėĘęĚěĜĝĞğĠġĢģĤĥĦħĨĩĪīĬĭĮįİıĴĵĶķĹĺĻļĽľŁłŃńŅņŇňŌōŎŏŐőŔŕŖŗŘřŚśŜŝŞşŠšŢţŤťŦŧŨũŪūŬŭŮůŰűŲųŴŵŶŷŸŹźŻżŽž";
  private static final String TO =
      "AAAAAACEEEEIIIINOOOOOOUUUUYaaaaaaceeeeiiiinoooooouuuuyyAaAaAaCcCcCcCcDdDdEeEeEeEeEeGgGgGgGgHhHhIiIiIiIiIiJjKkLlLlLlLlNnNnNnOoOoOoRrRrRrSsSsSsSsTtTtTtUuUuUuUuUuUuWwYyYZzZzZz";

  /**
   * What has more letters in the other case: the sign, then what it is folded to. Source: Unicode's
   * CaseFolding, status F, worked out from the platform's case mappings; İ from memory.
   */
  private static final String[] WIDER =
      ("ßss ŉʼn ǰj\u030c ΐι\u0308\u0301 ΰυ\u0308\u0301 ևեւ ẖh\u0331 ẗt\u0308 ẘw\u030a "
              + "ẙy\u030a ẚaʾ ὐυ\u0313 ὒυ\u0313\u0300 ὔυ\u0313\u0301 ὖυ\u0313\u0342 ᾀἀι ᾁἁι ᾂἂι ᾃἃι "
              + "ᾄἄι ᾅἅι ᾆἆι ᾇἇι ᾈἀι ᾉἁι ᾊἂι ᾋἃι ᾌἄι ᾍἅι ᾎἆι ᾏἇι ᾐἠι ᾑἡι ᾒἢι ᾓἣι ᾔἤι ᾕἥι ᾖἦι ᾗἧι ᾘἠι "
              + "ᾙἡι ᾚἢι ᾛἣι ᾜἤι ᾝἥι ᾞἦι ᾟἧι ᾠὠι ᾡὡι ᾢὢι ᾣὣι ᾤὤι ᾥὥι ᾦὦι ᾧὧι ᾨὠι ᾩὡι ᾪὢι ᾫὣι ᾬὤι ᾭὥι "
              + "ᾮὦι ᾯὧι ᾲὰι ᾳαι ᾴάι ᾶα\u0342 ᾷα\u0342ι ᾼαι ῂὴι ῃηι ῄήι ῆη\u0342 ῇη\u0342ι ῌηι "
              + "ῒι\u0308\u0300 ΐι\u0308\u0301 ῖι\u0342 ῗι\u0308\u0342 ῢυ\u0308\u0300 ΰυ\u0308\u0301 "
              + "ῤρ\u0313 ῦυ\u0342 ῧυ\u0308\u0342 ῲὼι ῳωι ῴώι ῶω\u0342 ῷω\u0342ι ῼωι ﬀff ﬁfi ﬂfl "
              + "ﬃffi ﬄffl ﬅst ﬆst ﬓմն ﬔմե ﬕմի ﬖվն ﬗմխ İi\u0307")
          .split(" ");

  private Fold() {}

  /** The text without accents: "Łąka" gives "Laka". Letters outside the table stay as they are. */
  public static String accents(String text) {
    String s = Composed.of(text);
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

  /** The text in lower case, code point by code point. */
  public static String lower(String s) {
    StringBuilder b = new StringBuilder(s.length());
    int cp;
    for (int i = 0; i < s.length(); i += Character.charCount(cp)) {
      cp = s.codePointAt(i);
      b.appendCodePoint(Character.toLowerCase(cp));
    }
    return b.toString();
  }

  /** The text in upper case, code point by code point; ß stays, since there is no one letter. */
  public static String upper(String s) {
    StringBuilder b = new StringBuilder(s.length());
    int cp;
    for (int i = 0; i < s.length(); i += Character.charCount(cp)) {
      cp = s.codePointAt(i);
      b.appendCodePoint(Character.toUpperCase(cp));
    }
    return b.toString();
  }

  /**
   * The text in no case, so that two texts that differ in case alone become one: Unicode's full
   * case folding. "STRASSE", "Straße" and "straße" are one, "ς" is "σ", and "İ" is an i with a dot
   * above, which is not the i of "I".
   */
  public static String cases(String s) {
    StringBuilder b = new StringBuilder(s.length());
    int cp;
    for (int i = 0; i < s.length(); i += Character.charCount(cp)) {
      cp = s.codePointAt(i);
      if (cp < 0x80) b.append(Character.toLowerCase((char) cp));
      else folded(cp, b);
    }
    return b.toString();
  }

  private static void folded(int cp, StringBuilder b) {
    if (cp == 'ı') { // its capital is I, but it is no i
      b.append('ı');
      return;
    }
    int simple = Character.toLowerCase(Character.toUpperCase(cp));
    for (String w : WIDER)
      if (w.charAt(0) == cp || (w.charAt(0) == simple && simple != 'i')) {
        b.append(w, 1, w.length());
        return;
      }
    b.appendCodePoint(simple);
  }
}
