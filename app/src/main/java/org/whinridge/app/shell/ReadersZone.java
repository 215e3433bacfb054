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
 * browser asks for, style and zone as the person chose, else the zone from the cookie in which
 * pages leave their browser's. Without it there is none.
 */
@Component("localeResolver")
class ReadersZone extends AcceptHeaderLocaleResolver implements LocaleContextResolver {
  /** Holds an identifier of the time zone database, such as Europe/Vienna. */
  static final String COOKIE = "zone";

  private record Reader(Locale locale, TimeZone zone, Locale style)
      implements TimeZoneAwareLocaleContext, ReadersChoice.Styled {
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
    String chosen = ReadersChoice.zone(q);
    TimeZone zone =
        chosen == null ? zone(WebUtils.getCookie(q, COOKIE)) : TimeZone.getTimeZone(chosen);
    return new Reader(resolveLocale(q), zone, ReadersChoice.style(q));
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
