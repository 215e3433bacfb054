package org.whinridge.app;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Collection;
import java.util.List;
import java.util.Optional;
import org.junit.jupiter.api.Test;
import org.whinridge.core.rules.Rules;
import org.whinridge.core.rules.Scope;
import org.whinridge.core.rules.saying.CqlJson;
import org.whinridge.core.value.ValueType;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;

/**
 * CQL2 Text read by an independent reader (npm cql2-wasm 0.5.0-rc1) gives the tree that Whinridge
 * gives, compared as CQL2 JSON. Well-formed text only: that reader takes broken text in silence. It
 * also ends a text at a doubled quote and reads a name that begins with “not” as NOT, so neither is
 * among the expressions.
 */
class Cql2OutsideTest {
  /** Every name is known, of no particular type. */
  private static final Scope ANY =
      new Scope() {
        @Override
        public Optional<Known> find(String name) {
          return Optional.of(new Known(name, ValueType.EMPTY, name, List.of()));
        }

        @Override
        public Collection<String> names() {
          return List.of();
        }
      };

  /** The first ones after the examples of OGC 21-065 (from memory), the rest of our own. */
  private static final List<String> EXPRESSIONS =
      List.of(
          "vehicle_height > (bridge_clearance-1)",
          "city='Toronto'",
          "balance-150.0 > 0",
          "depth BETWEEN 100.0 AND 150.0",
          "eo:cloud_cover BETWEEN 0.1 AND 0.2",
          "name LIKE 'Smith%'",
          "name NOT LIKE '%s_on'",
          "cityName IN ('Toronto','Frankfurt','Tokyo','New York')",
          "category NOT IN (1,2,3,4)",
          "geophys:SURVEY_NAME IS NOT NULL",
          "CASEI(road_class) IN (CASEI('Οδος'),CASEI('Straße'))",
          "ACCENTI(etat_vol) = ACCENTI('débárquér')",
          "S_INTERSECTS(geom,POINT(36.3191 32.2863))",
          "S_CROSSES(road,LINESTRING(43.7286 -79.2986, 43.7291 -79.2999))",
          "S_WITHIN(location,POLYGON((10 10,20 10,20 20,10 20,10 10)))",
          "S_DISJOINT(geom,MULTIPOLYGON(((0 0, 1 0, 1 1, 0 0)),((5 5, 6 5, 6 6, 5 5))))",
          "T_DURING(INTERVAL(starts_at, ends_at), INTERVAL('2005-01-10', '2010-02-10'))",
          "T_INTERSECTS(event_time, INTERVAL('1969-07-16T05:32:00Z', '1969-07-24T16:50:35Z'))",
          "T_AFTER(updated_at, DATE('2010-02-10'))",
          "T_BEFORE(built, TIMESTAMP('2012-08-10T05:30:00Z'))",
          "T_FINISHES(t, INTERVAL('..', '2010-02-10'))",
          "A_CONTAINS(ids, ('layers-ca','layers-us'))",
          "A_OVERLAPS(ids, ('a','b','c'))",
          "swimming_pool = TRUE AND (floors>5 OR material='brick')",
          "floors>5 AND material='brick' OR swimming_pool=TRUE",
          "NOT (floors < 5) OR swimming_pool = TRUE",
          "(floors>5 OR material='brick' OR floors<2) AND swimming_pool = TRUE",
          "owner LIKE '%Mike%' OR owner LIKE '%Mike'",
          "updated >= DATE('1970-01-01') AND updated < TIMESTAMP('2026-05-04T09:30:00Z')",
          "silt + 2 * width ^ 2 > -depth",
          "a - b - c = 7 % 2",
          "a div 2 <> 3 / b",
          "if(ok, silt, 0) <= 5",
          "NOT width IS NULL");

  private static final JsonMapper MAPPER = JsonMapper.builder().build();

  @Test
  void anIndependentReaderSeesTheSameTree() throws Exception {
    List<String> theirs = independent();
    assertThat(theirs).hasSameSizeAs(EXPRESSIONS);
    for (int i = 0; i < EXPRESSIONS.size(); i++) {
      String text = EXPRESSIONS.get(i);
      Rules.Outcome o = Rules.formula(text, ANY, ValueType.EMPTY);
      assertThat(o.problems()).as(text).isEmpty();
      assertThat(plain(CqlJson.write(o.rule().orElseThrow())))
          .as(text)
          .isEqualTo(plain(theirs.get(i)));
      String canonical = o.rule().get().canonical();
      Rules.Outcome again = Rules.formula(canonical, ANY, ValueType.EMPTY);
      assertThat(again.rule().map(r -> r.canonical() + CqlJson.write(r)))
          .as("printed and read again: %s", text)
          .contains(canonical + CqlJson.write(o.rule().get()));
      Rules.Outcome back = CqlJson.read(theirs.get(i), ANY, ValueType.EMPTY);
      assertThat(back.rule().map(r -> CqlJson.write(r)))
          .as("read back from their JSON: %s", text)
          .contains(CqlJson.write(o.rule().get()));
    }
  }

  /**
   * Numbers compared by value, since 1 and 1.0 are one number in JSON; a chain of one AND or OR is
   * one list of arguments, whether it was nested or not.
   */
  private static String plain(String json) {
    return walk(MAPPER.readTree(json));
  }

  private static String walk(JsonNode n) {
    if (n.isNumber()) return String.valueOf(n.doubleValue());
    StringBuilder b = new StringBuilder();
    String op = n.path("op").asString("");
    if (op.equals("and") || op.equals("or")) return op + chain(n, op);
    if (n.isArray()) for (JsonNode x : n) b.append(walk(x)).append(',');
    else if (n.isObject())
      n.properties().stream()
          .sorted(java.util.Map.Entry.comparingByKey())
          .forEach(e -> b.append(e.getKey()).append(':').append(walk(e.getValue())).append(';'));
    else return n.toString();
    return "[" + b + "]";
  }

  private static List<String> chain(JsonNode n, String op) {
    List<String> out = new ArrayList<>();
    for (JsonNode x : n.get("args"))
      if (x.path("op").asString("").equals(op)) out.addAll(chain(x, op));
      else out.add(walk(x));
    return out;
  }

  private static List<String> independent() throws Exception {
    Process p =
        new ProcessBuilder("node", "check/cql2.mjs")
            .directory(Path.of("src/main/frontend").toFile())
            .redirectError(ProcessBuilder.Redirect.INHERIT)
            .start();
    try (var in = p.getOutputStream()) {
      in.write(String.join("\n", EXPRESSIONS).getBytes(StandardCharsets.UTF_8));
    }
    String out = new String(p.getInputStream().readAllBytes(), StandardCharsets.UTF_8);
    assertThat(p.waitFor()).as("node's exit code").isZero();
    return out.lines().toList();
  }
}
