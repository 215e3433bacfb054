package org.whinridge.app.shell;

import com.ibm.icu.text.DateFormat;
import com.ibm.icu.text.NumberFormat;
import com.ibm.icu.util.TimeZone;
import com.ibm.icu.util.ULocale;
import java.time.Instant;
import java.time.LocalDate;
import java.time.ZoneOffset;
import java.util.Date;
import java.util.Locale;
import java.util.Map;
import java.util.function.BiFunction;
import org.springframework.context.i18n.LocaleContext;
import org.springframework.context.i18n.LocaleContextHolder;
import org.springframework.context.i18n.TimeZoneAwareLocaleContext;

/**
 * Texts of values ({@code style.*} in the catalogue), whose arguments go in as the reader's browser
 * writes them: numbers with their decimals, days, moments in the reader's time zone.
 */
final class Styles {
  private static final Map<String, BiFunction<Map<String, Object>, Locale, Map<String, Object>>>
      STYLED =
          Map.of(
              "style.fixed", Styles::fixed,
              "style.day", Styles::day,
              "style.moment", Styles::moment);

  private Styles() {}

  /** The arguments of a text in a reader's style; those of other texts as they are. */
  static Map<String, Object> in(Locale reader, String key, Map<String, Object> args) {
    var styled = STYLED.get(key);
    return styled == null ? args : styled.apply(args, ReadersChoice.style(reader));
  }

  private static Map<String, Object> fixed(Map<String, Object> args, Locale reader) {
    int decimals = ((Number) args.get("decimals")).intValue();
    NumberFormat f = NumberFormat.getInstance(reader);
    f.setMinimumFractionDigits(decimals);
    f.setMaximumFractionDigits(decimals);
    f.setGroupingUsed(false);
    return Map.of("n", f.format(args.get("n")));
  }

  private static Map<String, Object> day(Map<String, Object> args, Locale reader) {
    DateFormat f = DateFormat.getDateInstance(DateFormat.MEDIUM, ULocale.forLocale(reader));
    f.setTimeZone(TimeZone.GMT_ZONE);
    LocalDate day = LocalDate.parse((String) args.get("day"));
    return Map.of("day", f.format(Date.from(day.atStartOfDay(ZoneOffset.UTC).toInstant())));
  }

  private static Map<String, Object> moment(Map<String, Object> args, Locale reader) {
    DateFormat f =
        DateFormat.getDateTimeInstance(
            DateFormat.MEDIUM, DateFormat.SHORT, ULocale.forLocale(reader));
    LocaleContext context = LocaleContextHolder.getLocaleContext();
    java.util.TimeZone zone =
        context instanceof TimeZoneAwareLocaleContext z ? z.getTimeZone() : null;
    f.setTimeZone(zone == null ? TimeZone.GMT_ZONE : TimeZone.getTimeZone(zone.getID()));
    // browsers write a plain blank before AM and PM
    String at = f.format(Date.from(Instant.parse((String) args.get("at")))).replace('\u202f', ' ');
    return Map.of("at", zone == null ? at + " UTC" : at);
  }
}
