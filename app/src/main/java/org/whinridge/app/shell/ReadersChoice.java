package org.whinridge.app.shell;

import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpSession;
import java.util.Locale;
import org.springframework.context.i18n.LocaleContext;
import org.springframework.context.i18n.LocaleContextHolder;

/**
 * What a person chose to read by, kept with their session: pages find it there too. What was not
 * chosen is the browser's own.
 */
public final class ReadersChoice {
  private static final String ZONE = "readersZone";
  private static final String STYLE = "readersStyle";
  private static final String KEYS = "readersKeys";

  private ReadersChoice() {}

  /** A reader whose numbers and days are written in the style of another language. */
  interface Styled extends LocaleContext {
    /** That style; null when it is the language's own. */
    Locale style();
  }

  /**
   * Keeps it for the session.
   *
   * @param zone "" for the browser's
   * @param style a language tag; "" for the browser's
   */
  public static void keep(HttpSession session, String zone, String style, boolean singleKeys) {
    session.setAttribute(ZONE, zone.isEmpty() ? null : zone);
    session.setAttribute(STYLE, style.isEmpty() ? null : style);
    session.setAttribute(KEYS, singleKeys ? null : "off");
  }

  static String zone(HttpServletRequest q) {
    return (String) of(q, ZONE);
  }

  static Locale style(HttpServletRequest q) {
    Object tag = of(q, STYLE);
    return tag == null ? null : Locale.forLanguageTag((String) tag);
  }

  private static Object of(HttpServletRequest q, String name) {
    HttpSession session = q.getSession(false);
    return session == null ? null : session.getAttribute(name);
  }

  /** By which style numbers and days are written for whoever asks now. */
  static Locale style(Locale reader) {
    return LocaleContextHolder.getLocaleContext() instanceof Styled s && s.style() != null
        ? s.style()
        : reader;
  }
}
