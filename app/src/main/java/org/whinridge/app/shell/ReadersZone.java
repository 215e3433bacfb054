package org.whinridge.app.shell;

import jakarta.servlet.http.Cookie;
import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import java.util.Locale;
import java.util.TimeZone;
import org.springframework.context.i18n.LocaleContext;
import org.springframework.context.i18n.TimeZoneAwareLocaleContext;
import org.springframework.stereotype.Component;
import org.springframework.web.servlet.LocaleContextResolver;
import org.springframework.web.servlet.i18n.AcceptHeaderLocaleResolver;
import org.springframework.web.util.WebUtils;

/**
 * In whose language and style, and in which time zone, a request is answered: the language as the
 * browser asks for, the zone from the cookie in which pages leave their browser's. Without it there
 * is none.
 */
@Component("localeResolver")
class ReadersZone extends AcceptHeaderLocaleResolver implements LocaleContextResolver {
  /** Holds an identifier of the time zone database, such as Europe/Vienna. */
  static final String COOKIE = "zone";

  private record Reader(Locale locale, TimeZone zone) implements TimeZoneAwareLocaleContext {
    @Override
    public Locale getLocale() {
      return locale;
    }

    @Override
    public TimeZone getTimeZone() {
      return zone;
    }
  }

  @Override
  public LocaleContext resolveLocaleContext(HttpServletRequest q) {
    return new Reader(resolveLocale(q), zone(WebUtils.getCookie(q, COOKIE)));
  }

  private static TimeZone zone(Cookie cookie) {
    if (cookie == null) return null;
    String id = cookie.getValue();
    TimeZone zone = TimeZone.getTimeZone(id);
    return zone.getID().equals(id) ? zone : null; // one that isn't known would be taken for GMT
  }

  @Override
  public void setLocaleContext(HttpServletRequest q, HttpServletResponse r, LocaleContext c) {
    throw new UnsupportedOperationException("the browser says its language and zone");
  }
}
