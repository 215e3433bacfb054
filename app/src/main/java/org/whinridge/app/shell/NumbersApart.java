package org.whinridge.app.shell;

import com.ibm.icu.text.MessagePattern;
import com.ibm.icu.text.MessagePattern.ArgType;
import com.ibm.icu.text.MessagePattern.Part;
import java.util.ArrayDeque;
import java.util.Deque;

/**
 * Patterns whose numbers are put in as texts. ICU's MessageFormat writes numbers in the style of
 * the language whose plurals it follows; here the plurals are the text's and the style is the
 * reader's, so that numbers come in as they are to be read, under a name of their own.
 */
final class NumbersApart {
  private NumbersApart() {}

  /** The name under which a number comes in as it is to be read. */
  static String said(String name) {
    return name + "_said";
  }

  /** The name under which a number comes in as a share, in per cent. */
  static String share(String name) {
    return name + "_share";
  }

  /** The name under which a number comes in with all its digits. */
  static String exact(String name) {
    return name + "_exact";
  }

  /** The pattern with {@code #} and {@code {n, number}} as {@code {n_said}}. */
  static String of(String pattern) {
    MessagePattern p = new MessagePattern(pattern);
    StringBuilder out = new StringBuilder();
    Deque<String> plurals = new ArrayDeque<>();
    int at = 0;
    for (int i = 0; i < p.countParts(); i++) {
      Part part = p.getPart(i);
      if (part.getType() == Part.Type.ARG_START) {
        boolean plural = part.getArgType().hasPluralStyle();
        String name = p.getSubstring(p.getPart(i + 1));
        plurals.push(plural ? name : plurals.isEmpty() ? "" : plurals.peek());
        if (part.getArgType() == ArgType.SIMPLE
            && p.getSubstring(p.getPart(i + 2)).equals("number")) {
          boolean styled = p.getPart(i + 3).getType() == Part.Type.ARG_STYLE;
          String style = styled ? p.getSubstring(p.getPart(i + 3)).strip() : "";
          out.append(pattern, at, part.getIndex());
          out.append('{')
              .append(
                  style.equals("percent")
                      ? share(name)
                      : style.equals("exact") ? exact(name) : said(name))
              .append('}');
          at = p.getPart(p.getLimitPartIndex(i)).getLimit();
        }
      } else if (part.getType() == Part.Type.ARG_LIMIT) plurals.pop();
      else if (part.getType() == Part.Type.REPLACE_NUMBER) {
        out.append(pattern, at, part.getIndex());
        out.append('{').append(said(plurals.getFirst())).append('}');
        at = part.getLimit();
      }
    }
    return out.append(pattern.substring(at)).toString();
  }
}
