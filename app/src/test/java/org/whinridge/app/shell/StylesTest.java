package org.whinridge.app.shell;

import static org.assertj.core.api.Assertions.assertThat;

import com.eclipsesource.json.Json;
import com.eclipsesource.json.JsonObject;
import jakarta.servlet.http.Cookie;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.time.Instant;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.Test;
import org.springframework.context.i18n.LocaleContextHolder;
import org.springframework.mock.web.MockHttpServletRequest;
import org.whinridge.core.layer.Shown;
import org.whinridge.core.said.Said;
import org.whinridge.core.value.Value;
import tools.jackson.databind.json.JsonMapper;

/** Values are told in the style of whoever reads, the same by the server and by the browser. */
class StylesTest {
  private static final Said DEPTH = Shown.of(Value.of(-0.4), List.of(), 2, "m");
  private static final Said BUILT = Said.day(LocalDate.of(2001, 3, 23));
  private static final Said SEEN = Said.moment(Instant.parse("2026-07-01T22:30:00Z"));
  private static final List<Said> VALUES =
      List.of(
          DEPTH,
          BUILT,
          SEEN,
          Value.NO.said(),
          Value.of(1234.5678).said(),
          Value.many(List.of(Value.of(1.5), Value.text("a"))).said(),
          new Value.Interval(
                  Instant.parse("2026-07-01T00:00:00Z"),
                  Instant.parse("2026-07-03T00:00:00Z"),
                  true)
              .said(),
          Shown.minutes(80.5));

  private final Catalogue catalogue;

  StylesTest() throws IOException {
    catalogue = new Catalogue(JsonMapper.builder().build(), "");
  }

  @AfterEach
  void nobodyReads() {
    LocaleContextHolder.resetLocaleContext();
  }

  private void readIn(String zone) {
    MockHttpServletRequest q = new MockHttpServletRequest();
    if (!zone.isEmpty()) q.setCookies(new Cookie(ReadersZone.COOKIE, zone));
    LocaleContextHolder.setLocaleContext(new ReadersZone().resolveLocaleContext(q));
  }

  @Test
  void numbersAndDaysFollowTheReader() {
    assertThat(catalogue.say(Locale.UK, DEPTH)).isEqualTo("-0.40 m");
    assertThat(catalogue.say(Locale.UK, BUILT)).isEqualTo("23 Mar 2001");
    assertThat(catalogue.say(Locale.GERMANY, DEPTH)).isEqualTo("-0,40 m");
    assertThat(catalogue.say(Locale.GERMANY, BUILT)).isEqualTo("23.03.2001");
  }

  @Test
  void momentsAreInTheReadersZoneAndSayUtcWithoutOne() {
    assertThat(catalogue.say(Locale.UK, SEEN)).isEqualTo("1 Jul 2026, 22:30 UTC");
    readIn("Pacific/Auckland");
    assertThat(catalogue.say(Locale.UK, SEEN)).isEqualTo("2 Jul 2026, 10:30");
    readIn("no/such/zone");
    assertThat(catalogue.say(Locale.UK, SEEN)).isEqualTo("1 Jul 2026, 22:30 UTC");
  }

  @Test
  void whatIsNoDayIsToldAsItStands() {
    Said odd = Said.of("style.day", "day", "yesterday");
    assertThat(catalogue.say(Locale.UK, odd)).isEqualTo(odd.toString());
  }

  @Test
  void theBrowserTellsThemTheSameWay() throws Exception {
    readIn("Europe/London");
    List<String> ours = new ArrayList<>();
    StringBuilder asked = new StringBuilder();
    for (String style : List.of("en-GB", "en-US", "de", "fr", "hi"))
      for (Said s : VALUES) {
        ours.add(catalogue.say(Locale.forLanguageTag(style), s));
        asked.append(new JsonObject().add("told", s.json()).add("style", style)).append('\n');
      }
    ProcessBuilder node = new ProcessBuilder("node", "check/messages.mjs");
    node.environment().put("TZ", "Europe/London");
    Process p =
        node.directory(Path.of("src/main/frontend").toFile())
            .redirectError(ProcessBuilder.Redirect.INHERIT)
            .start();
    try (var in = p.getOutputStream()) {
      in.write(asked.toString().getBytes(StandardCharsets.UTF_8));
    }
    List<String> theirs =
        new String(p.getInputStream().readAllBytes(), StandardCharsets.UTF_8)
            .lines()
            .map(line -> Json.parse(line).asString())
            .toList();
    assertThat(theirs).isEqualTo(ours);
  }
}
