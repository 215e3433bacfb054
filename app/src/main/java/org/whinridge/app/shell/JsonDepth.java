package org.whinridge.app.shell;

/** How deep JSON that comes from outside may be nested. */
public final class JsonDepth {
  /** Deeper than any document of the job: those of forms and geometries have about a dozen. */
  public static final int MOST = 64;

  private JsonDepth() {}

  /** Whether a text is nested deeper, looked at without reading it as JSON. */
  public static boolean isOver(String json) {
    int depth = 0;
    boolean inText = false;
    for (int i = 0; i < json.length(); i++) {
      char c = json.charAt(i);
      if (inText) {
        if (c == '\\') i++;
        else if (c == '"') inText = false;
      } else if (c == '"') inText = true;
      else if (c == '{' || c == '[') {
        if (++depth > MOST) return true;
      } else if (c == '}' || c == ']') depth--;
    }
    return false;
  }
}
