package org.whinridge.core.look;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import com.eclipsesource.json.Json;
import com.eclipsesource.json.JsonObject;
import java.time.Instant;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Random;
import java.util.UUID;
import org.junit.jupiter.api.Test;
import org.locationtech.jts.geom.Coordinate;
import org.whinridge.core.layer.Code;
import org.whinridge.core.layer.Feature;
import org.whinridge.core.layer.Field;
import org.whinridge.core.layer.FieldType;
import org.whinridge.core.layer.Schema;
import org.whinridge.core.place.GeometryJson;
import org.whinridge.core.place.GeometryKind;
import org.whinridge.core.read.Clock;
import org.whinridge.core.read.LayerColumns;
import org.whinridge.core.said.English;
import org.whinridge.core.value.Value;

class LookTest {
  static final Clock CLOCK =
      new Clock(LocalDate.of(2026, 3, 1), Instant.parse("2026-03-01T12:00:00Z"));
  static final Schema GATES =
      new Schema(
          GeometryKind.POINT,
          List.of(
              Field.of("tag", "Tag", FieldType.TEXT),
              Field.of("kind", "Kind", FieldType.CODE)
                  .with(List.of(Code.of("weir", "Weir"), Code.of("sluice", "Sluice"))),
              Field.of("width", "Width", FieldType.WHOLE).in("mm"),
              Field.of("bearing", "Bearing", FieldType.DECIMAL),
              Field.of("seen", "Last seen", FieldType.DATE),
              Field.of("grazed", "Grazed by", FieldType.CODES)),
          "tag",
          List.of("tag"));

  static Feature gate(Object... pairs) {
    Map<String, Value> v = new LinkedHashMap<>();
    for (int i = 0; i < pairs.length; i += 2)
      v.put(
          (String) pairs[i],
          pairs[i + 1] instanceof Number n
              ? Value.of(n.doubleValue())
              : pairs[i + 1] instanceof Value x ? x : Value.text((String) pairs[i + 1]));
    return new Feature(
        UUID.randomUUID().toString(),
        Optional.of(GeometryJson.WGS84.createPoint(new Coordinate(-10.2, 57.9))),
        v,
        1);
  }

  private static Drawn draw(String look, Feature f) {
    return ReadyLook.of(Look.read(look), GATES).draw(f, CLOCK);
  }

  static final String BY_CODE =
      """
      {"by":"code","field":"kind","classes":[{"label":"Weir","code":"weir","stack":[]},{"label":"Sluice","code":"sluice","stack":[{"draw":"mark","turnBy":"bearing","size":{"px":9,"field":"width","from":300,"to":1300,"small":10,"large":30}}]}],
       "label":{"template":"{tag}\\n{width} wide"}}""";

  @Test
  void aCodeFindsItsEntry() {
    assertThat(draw(BY_CODE, gate("kind", "sluice")).entries()).containsExactly(1);
    assertThat(draw(BY_CODE, gate("kind", "weir")).entries()).containsExactly(0);
    assertThat(draw(BY_CODE, gate("kind", "pump")).entries())
        .as("everything else")
        .containsExactly(2);
    assertThat(draw(BY_CODE, gate()).entries()).containsExactly(2);
    String many = BY_CODE.replace("\"kind\"", "\"grazed\"");
    assertThat(
            draw(many, gate("grazed", Value.many(List.of(Value.text("cow"), Value.text("sluice")))))
                .entries())
        .as("of several codes the first that has an entry")
        .containsExactly(1);
  }

  @Test
  void aNumberFallsIntoTheClassUpToItsEnd() {
    String look =
        "{\"by\":\"class\",\"field\":\"width\",\"classes\":[{\"upTo\":300},{\"upTo\":600},{\"upTo\":900}]}";
    assertThat(draw(look, gate("width", 299)).entries()).containsExactly(0);
    assertThat(draw(look, gate("width", 300)).entries()).containsExactly(0);
    assertThat(draw(look, gate("width", 301)).entries()).containsExactly(1);
    assertThat(draw(look, gate("width", 901)).entries()).containsExactly(3);
    assertThat(draw(look, gate("width", "wide")).entries()).containsExactly(3);
  }

  @Test
  void aRuleHoldsForTheFirstOrForAll() {
    String look =
        "{\"by\":\"rule\",ALL\"classes\":[{\"rule\":\"width > 500\"},{\"rule\":\"seen < DATE('2026-01-01')\"},{\"rule\":\"kind = \"}]}";
    Feature both = gate("width", 700, "seen", new Value.Day(LocalDate.of(2025, 5, 5)));
    assertThat(draw(look.replace("ALL", ""), both).entries()).containsExactly(0);
    assertThat(draw(look.replace("ALL", "\"all\":true,"), both).entries()).containsExactly(0, 1);
    assertThat(draw(look.replace("ALL", ""), gate()).entries()).containsExactly(3);
    assertThat(ReadyLook.of(Look.read(look.replace("ALL", "")), GATES).problems())
        .singleElement()
        .satisfies(
            p -> {
              assertThat(p.entry()).isEqualTo(2);
              assertThat(p.from()).isGreaterThanOrEqualTo(0);
              assertThat(English.of(p.message())).contains("nothing is drawn by this rule");
            });
  }

  @Test
  void bearingsTurnAndNumbersSize() {
    Drawn d = draw(BY_CODE, gate("kind", "sluice", "bearing", 200, "width", 800));
    assertThat(d.turns()).containsExactly(200);
    assertThat(d.sizes()).containsExactly(20);
    assertThat(draw(BY_CODE, gate("bearing", 360)).turns()).containsExactly(0);
    // the range of a bearing is 0 to 360 degrees: common practice, no source
    assertThat(draw(BY_CODE, gate("bearing", 361)).turns()).containsExactly(0);
    assertThat(draw(BY_CODE, gate("bearing", -5)).turns()).containsExactly(0);
    assertThat(draw(BY_CODE, gate("bearing", "north")).turns()).containsExactly(0);
    assertThat(draw(BY_CODE, gate("width", 99999)).sizes()).containsExactly(30);
    assertThat(draw(BY_CODE, gate("width", "wide")).sizes()).containsExactly(9);
  }

  @Test
  void labelsLeaveOutLinesWithoutValues() {
    assertThat(English.of(draw(BY_CODE, gate("tag", "OS-1", "width", 600)).label()))
        .isEqualTo("OS-1\n600 mm wide");
    assertThat(English.of(draw(BY_CODE, gate("tag", "OS-1")).label())).isEqualTo("OS-1");
    assertThat(English.of(draw(BY_CODE, gate()).label())).isEmpty();
  }

  @Test
  void whatIsGoneIsToldAndDrawnByTheFallback() {
    ReadyLook gone =
        ReadyLook.of(
            Look.read(
                """
                {"by":"code","field":"colour","classes":[{"code":"red","preset":{"paint":"x"},"stack":[{"draw":"mark","icon":"own-gone","turnBy":"aspect"}]}],"label":{"template":"{name}"}}"""),
            GATES);
    assertThat(gone.draw(gate("kind", "weir"), CLOCK).entries()).containsExactly(1);
    assertThat(gone.entries().get(1).stack()).as("never vanishes").isNotEmpty();
    assertThat(gone.problems().stream().map(x -> English.of(x.message())))
        .anyMatch(m -> m.contains("the field “colour” is gone"))
        .anyMatch(m -> m.contains("“aspect”"))
        .anyMatch(m -> m.contains("own-gone"))
        .anyMatch(m -> m.contains("“name”"))
        .anyMatch(m -> m.contains("“paint”"));
    assertThat(ReadyLook.of(Look.read(BY_CODE.replace("weir", "lock")), GATES).problems())
        .singleElement()
        .satisfies(
            p ->
                assertThat(English.of(p.message())).contains("not in the list of “Kind” any more"));
    assertThat(
            ReadyLook.of(
                    Look.read(BY_CODE.replace("\"turnBy\":\"bearing\"", "\"turnBy\":\"tag\"")),
                    GATES)
                .problems())
        .singleElement()
        .satisfies(p -> assertThat(English.of(p.message())).contains("symbols are drawn upright"));
  }

  @Test
  void aFeatureMadeFromAnEntryBeginsWithItsValues() {
    LookClass c =
        LookClass.ofCode("Weir", "weir", List.of())
            .with(Json.parse("{\"width\":600,\"gone\":1}").asObject());
    assertThat(c.presetValues(GATES, "kind"))
        .containsExactly(Map.entry("kind", Value.text("weir")), Map.entry("width", Value.of(600)));
  }

  @Test
  void aLookComesBackFromItsJson() {
    Look look = Look.read(BY_CODE);
    assertThat(Look.read(look.json().toString()).json().toString())
        .isEqualTo(look.json().toString());
    Look plain = Look.plain(GeometryKind.POLYGON);
    assertThat(Look.read(plain.json().toString())).isEqualTo(plain);
  }

  @Test
  void whatIsNoLookIsRefusedInWords() {
    for (String s :
        List.of(
            "",
            "[]",
            "{}",
            "{\"by\":\"moon\"}",
            "{\"by\":7}",
            "[".repeat(5000),
            "{\"by\":\"one\",\"classes\":" + "[".repeat(3000)))
      assertThatThrownBy(() -> Look.read(s))
          .as(s.substring(0, Math.min(20, s.length())))
          .isInstanceOf(IllegalArgumentException.class);
    StringBuilder many = new StringBuilder("{\"by\":\"code\",\"classes\":[{}");
    for (int i = 0; i < 300; i++) many.append(",{}");
    assertThatThrownBy(() -> Look.read(many + "]}")).satisfies(English.says("at most 200 classes"));
  }

  /** Any member may be of any kind; a look is read or refused in words, and draws. */
  @Test
  void hostileLooksNeverBreak() {
    Random r = new Random(17);
    String[] junk = {
      "null",
      "true",
      "-1",
      "1e999",
      "\"x\"",
      "[]",
      "{}",
      "[null,[1]]",
      "\"#12\"",
      "{\"field\":[]}",
      "1e-9",
      "\"M0 0\""
    };
    String good =
        Look.read(BY_CODE)
            .json()
            .set(
                "icons",
                Json.parse("{\"own-a\":{\"box\":9,\"parts\":[{\"path\":\"M0 0\",\"width\":2}]}}"))
            .toString();
    int read = 0;
    for (int run = 0; run < 4000; run++) {
      StringBuilder b = new StringBuilder(good);
      for (int k = 0; k < 1 + r.nextInt(3); k++) {
        int colon = b.indexOf(":", r.nextInt(b.length()));
        if (colon < 0) continue;
        int end = colon + 1;
        while (end < b.length() && ",}]".indexOf(b.charAt(end)) < 0) end++;
        b.replace(colon + 1, end, junk[r.nextInt(junk.length)]);
      }
      try {
        ReadyLook ready = ReadyLook.of(Look.read(b.toString()), GATES);
        ready.draw(gate("kind", "sluice", "width", 3), CLOCK);
        Drawing.plan(ready);
        read++;
      } catch (IllegalArgumentException e) {
        assertThat(e.getMessage()).isNotBlank();
      }
    }
    assertThat(read).as("looks that could be read").isGreaterThan(500);
  }

  @Test
  void columnsGiveTheSameAsOneByOne() {
    Random r = new Random(3);
    List<Feature> all = new ArrayList<>();
    for (int i = 0; i < 500; i++) {
      Feature f =
          gate(
              "kind",
              new String[] {"weir", "sluice", "pump", ""}[r.nextInt(4)],
              "width",
              r.nextInt(5) == 0 ? "wide" : (Object) r.nextInt(1200),
              "bearing",
              r.nextInt(400) - 20,
              "tag",
              "T" + i,
              "grazed",
              Value.many(List.of(Value.text("cow"), Value.text(r.nextBoolean() ? "weir" : "ox"))),
              "seen",
              new Value.Day(LocalDate.of(2025, 1 + r.nextInt(12), 1)));
      all.add(f);
    }
    LayerColumns layer = LayerColumns.of(GATES, all);
    List<String> looks =
        List.of(
            BY_CODE,
            BY_CODE.replace("\"field\":\"kind\"", "\"field\":\"grazed\""),
            BY_CODE.replace("\"field\":\"kind\"", "\"field\":\"gone\""),
            "{\"by\":\"one\"}",
            "{\"by\":\"code\",\"field\":\"width\",\"classes\":[{\"code\":\"7\"},{\"code\":\"wide\"}]}",
            "{\"by\":\"class\",\"field\":\"width\",\"classes\":[{\"upTo\":300},{\"upTo\":200},{},{\"upTo\":900}]}",
            "{\"by\":\"class\",\"field\":\"seen\",\"classes\":[{\"upTo\":99999}]}",
            "{\"by\":\"class\",\"field\":\"tag\",\"classes\":[{\"upTo\":99999}]}",
            "{\"by\":\"rule\",\"classes\":[{\"rule\":\"width > 500\"},{\"rule\":\"kind = 'weir'\"},{\"rule\":\"((\"}]}",
            "{\"by\":\"rule\",\"all\":true,\"classes\":[{\"rule\":\"width > 500\"},{\"rule\":\"kind = 'weir'\"}]}");
    for (String json : looks) {
      ReadyLook ready = ReadyLook.of(Look.read(json), GATES);
      LookRows rows = new LookRows(ready, layer, CLOCK);
      int[] counts = new int[ready.other() + 1];
      for (int i = 0; i < all.size(); i++) {
        Drawn one = ready.draw(all.get(i), CLOCK);
        assertThat(rows.draw(i, true).json().toString()).as(json).isEqualTo(one.json().toString());
        assertThat(rows.top(i)).isEqualTo(one.entries()[one.entries().length - 1]);
        for (int e : one.entries()) counts[e]++;
      }
      assertThat(rows.counts()).as(json).containsExactly(counts);
    }
  }

  @Test
  void mapsAndLegendsDrawTheSamePictures() {
    Look look = Look.read(BY_CODE);
    JsonObject plan = Drawing.plan(ReadyLook.of(look, GATES));
    JsonObject sluice = plan.get("entries").asArray().get(1).asObject();
    String onMap = sluice.get("draws").asArray().get(0).asObject().getString("svg", "");
    String drawing = onMap.substring(onMap.indexOf("<g"), onMap.lastIndexOf("</svg>"));
    assertThat(drawing).contains("<path");
    assertThat(sluice.getString("symbol", "")).contains(drawing);
  }

  @Test
  void iconsHoldPathsAlone() {
    for (String id : Icons.ids())
      assertThat(Icon.read(Icons.of(id).orElseThrow().json())).isEqualTo(Icons.of(id));
    for (String path :
        List.of("", "L1 1", "M0 0\"/><script>", "M0 0url(x)", "M" + " 1".repeat(20_000)))
      assertThat(Icon.isPath(path)).isFalse();
    assertThat(
            Icon.read(
                Json.parse(
                    "{\"box\":24,\"parts\":[{\"path\":\"M0 0L1 1\",\"fill\":\"url(http://x)\"}]}")))
        .isEmpty();
  }

  /** The form is taken over, the colour stays: of lines the topmost, of areas the ground. */
  @Test
  void symbolsAreCopiedFromEntryToEntryWithoutTheColour() {
    Look look =
        Look.read(
            """
            {"by":"code","field":"kind","classes":[
              {"code":"a","stack":[{"draw":"line","colour":"#000000","width":7},{"draw":"line","colour":"#111111","width":5}]},
              {"code":"b","stack":[{"draw":"line","colour":"#222222"}]},
              {"code":"c","preset":{"width":7},"stack":[{"draw":"mark","colour":"#333333"}]},
              {"code":"d","stack":[]}],
             "other":{"stack":[{"draw":"area","colour":"#444444"},{"draw":"line","colour":"#555555"}]}}""");
    Look same = LookProposal.sameSymbols(look, 0);
    assertThat(same.classes().get(0)).isEqualTo(look.classes().get(0));
    for (int i = 1; i < 3; i++) {
      List<Symbol> stack = same.classes().get(i).stack();
      assertThat(stack).hasSize(2);
      assertThat(((Symbol.Stroke) stack.get(0)).colour()).isEqualTo("#000000");
      assertThat(((Symbol.Stroke) stack.get(1)).colour()).isEqualTo(i == 1 ? "#222222" : "#333333");
    }
    assertThat(same.classes().get(2).preset()).isEqualTo(look.classes().get(2).preset());
    assertThat(same.classes().get(3).stack())
        .as("it had no colour")
        .isEqualTo(look.classes().get(0).stack());
    assertThat(((Symbol.Stroke) same.other().stack().get(1)).colour()).isEqualTo("#444444");
    Look areas = LookProposal.sameSymbols(look, 4);
    assertThat(((Symbol.Area) areas.classes().get(1).stack().get(0)).colour()).isEqualTo("#222222");
    assertThat(((Symbol.Stroke) areas.classes().get(1).stack().get(1)).colour())
        .as("the edge stays")
        .isEqualTo("#555555");
    assertThat(LookProposal.sameSymbols(look, 9)).isSameAs(look);
  }

  @Test
  void whatIsUnnamedIsNamedInAWarning() {
    ReadyLook one =
        ReadyLook.of(
            Look.one(List.of(new Symbol.Mark("disc", "#f3eedd", Size.of(10), "", 0, "", 1))),
            GATES);
    assertThat(English.of(Drowning.of(one, List.of(Colour.of("#f1eddf"))).get(0).message()))
        .startsWith("“All features” drowns");
  }

  @Test
  void coloursThatDrownAreTold() {
    ReadyLook pale =
        ReadyLook.of(
            Look.one(List.of(new Symbol.Mark("disc", "#f3eedd", Size.of(10), "", 0, "", 1))),
            GATES);
    Colour land = Colour.of("#f1eddf");
    assertThat(Drowning.of(pale, List.of(land)))
        .singleElement()
        .satisfies(p -> assertThat(English.of(p.message())).contains("1.0 to 1"));
    assertThat(
            Drowning.of(
                ReadyLook.of(
                    Look.one(LookProposal.coloured(pale.look().other().stack(), "#f3eedd")), GATES),
                List.of(land)))
        .isEmpty();
  }

  @Test
  void proposalsHaveAnEntryForWhatIsThere() {
    LayerColumns.Builder forty = new LayerColumns.Builder(GATES);
    for (int i = 0; i < 40; i++)
      forty.add(gate("kind", i < 3 ? "lock" : "weir", "width", 100 + i % 4));
    LayerColumns layer = forty.build();
    Look before = Look.plain(GeometryKind.POINT);
    Look codes =
        LookProposal.byCode(before, layer, GATES.field("kind").orElseThrow(), Ramp.ASSORTED);
    assertThat(codes.classes().stream().map(LookClass::label))
        .containsExactly("Weir", "Sluice", "lock");
    Look classes =
        LookProposal.byClass(
            before, layer, GATES.field("width").orElseThrow(), Breaks.Method.NATURAL, 2, Ramp.PEAT);
    assertThat(classes.classes().stream().map(LookClass::label))
        .containsExactly("100 – 101 mm", "> 101 – 103 mm");
    Look each =
        LookProposal.byClass(
            before, layer, GATES.field("width").orElseThrow(), Breaks.Method.NATURAL, 9, Ramp.PEAT);
    assertThat(each.classes().stream().map(LookClass::label))
        .containsExactly("100 mm", "101 mm", "102 mm", "103 mm");
    assertThat(
            LookProposal.byClass(
                    before,
                    layer,
                    GATES.field("tag").orElseThrow(),
                    Breaks.Method.NATURAL,
                    9,
                    Ramp.PEAT)
                .classes())
        .isEmpty();
  }

  @Test
  void aLookSaysWhichFieldsItReads() {
    assertThat(Look.read(BY_CODE).fields()).contains("kind", "bearing");
    assertThat(
            Look.read(
                    "{\"by\":\"rule\",\"classes\":[{\"rule\":\"depth > 3 AND lower(tag) = 'x'\"}],\"label\":{\"template\":\"{name} {place_no}\"}}")
                .fields())
        .contains("depth", "tag", "name", "place_no")
        .doesNotContain("kind");
  }
}
