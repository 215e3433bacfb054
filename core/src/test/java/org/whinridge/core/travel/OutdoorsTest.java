package org.whinridge.core.travel;

import static org.assertj.core.api.Assertions.assertThat;

import com.eclipsesource.json.Json;
import com.eclipsesource.json.JsonObject;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.junit.jupiter.api.Test;
import org.whinridge.core.form.Form;
import org.whinridge.core.layer.Feature;
import org.whinridge.core.layer.Field;
import org.whinridge.core.layer.FieldType;
import org.whinridge.core.layer.Schema;
import org.whinridge.core.look.Look;
import org.whinridge.core.place.GeometryKind;
import org.whinridge.core.value.Value;

/** Whatever a pack is made of, "C7" never is in it. */
class OutdoorsTest {
  private static final Schema SCHEMA =
      new Schema(
          GeometryKind.POINT,
          List.of(
              Field.of("tag", "Tag", FieldType.TEXT),
              Field.of("kind", "Kind", FieldType.TEXT),
              Field.of("cost", "Cost centre", FieldType.TEXT).inOffice()),
          "tag",
          List.of("tag", "cost"));
  private static final Feature FEATURE =
      new Feature(
          "0f0f0f0f-0000-4000-8000-000000000001",
          Optional.empty(),
          Map.of(
              "tag",
              Value.text("OS-1"),
              "cost",
              Value.text("C7"),
              "old_name",
              Value.text("C7 too")),
          4);

  @Test
  void fieldsCaptionsAndTagsOfTheOfficeStay() {
    assertThat(Outdoors.schema(SCHEMA).fields())
        .extracting(Field::name)
        .containsExactly("tag", "kind");
    assertThat(Outdoors.json(FEATURE, SCHEMA).toString()).contains("OS-1").doesNotContain("C7");
    assertThat(Outdoors.caption(FEATURE, SCHEMA)).isEqualTo("OS-1");
    Schema onlyCost = new Schema(SCHEMA.kind(), SCHEMA.fields(), "cost", List.of("cost"));
    assertThat(Outdoors.schema(onlyCost).tagField()).isEmpty();
    assertThat(Outdoors.schema(onlyCost).captionFields()).isEmpty();
    assertThat(Outdoors.caption(FEATURE, onlyCost)).isEqualTo("feature 0f0f0f0f");
  }

  private static final String FORM =
      "{\"title\":\"F\",\"sections\":[{\"title\":\"S\",\"questions\":["
          + "{\"name\":\"tag\",\"label\":\"Tag\",\"type\":\"text\",\"writesTo\":\"tag\"},"
          + "{\"name\":\"price\",\"label\":\"Price\",\"type\":\"text\",\"officeOnly\":true},"
          + "{\"name\":\"centre\",\"label\":\"Centre\",\"type\":\"text\",\"writesTo\":\"cost\"}]},"
          + "{\"title\":\"Defects\",\"name\":\"defects\",\"rows\":{},\"questions\":["
          + "{\"name\":\"what\",\"label\":\"What\",\"type\":\"text\"},"
          + "{\"name\":\"fee\",\"label\":\"Fee\",\"type\":\"text\",\"officeOnly\":true}]}]}";

  @Test
  void questionsOfTheOfficeAndThoseThatWriteToItsFieldsStay() {
    List<String> asked = new ArrayList<>();
    Outdoors.form(Form.read(FORM), SCHEMA).questions().forEach(q -> asked.add(q.name()));
    assertThat(asked).containsExactly("tag", "what");
  }

  @Test
  void pastVisitsTakeAlongOnlyWhatIsAskedOutdoors() {
    JsonObject answers =
        Json.parse(
                "{\"tag\":{\"value\":\"OS-1\"},\"price\":{\"value\":\"C7\"},\"centre\":{\"value\":\"C7\"},\"from_a_file\":{\"value\":\"C7\"}}")
            .asObject();
    JsonObject kept =
        Json.parse(
                "{\"defects\":[{\"id\":\"r1\",\"state\":\"new\",\"answers\":{\"what\":\"crack\",\"fee\":\"C7\"}}],\"cost\":\"C7\"}")
            .asObject();
    assertThat(Outdoors.pastAnswers(answers, kept, Form.read(FORM), SCHEMA, SCHEMA).toString())
        .isEqualTo(
            "{\"tag\":\"OS-1\",\"defects\":[{\"id\":\"r1\",\"state\":\"new\",\"answers\":{\"what\":\"crack\"}}]}");
    Schema tagToo =
        new Schema(
            SCHEMA.kind(),
            List.of(Field.of("tag", "Tag", FieldType.TEXT).inOffice()),
            "",
            List.of());
    assertThat(Outdoors.pastAnswers(answers, kept, Form.read(FORM), SCHEMA, tagToo).get("tag"))
        .as("office only since the edition was published")
        .isNull();
  }

  @Test
  void aLookThatShowsWhatStaysIsPlain() {
    List<String> showing =
        List.of(
            "{\"by\":\"code\",\"field\":\"cost\",\"classes\":[{\"code\":\"C7\",\"label\":\"C7\"}]}",
            "{\"by\":\"rule\",\"classes\":[{\"rule\":\"kind = 'x' AND cost = 'C7'\",\"label\":\"dear\"}]}",
            "{\"by\":\"one\",\"label\":{\"template\":\"{tag} { cost }\"}}",
            "{\"by\":\"one\",\"other\":{\"stack\":[{\"draw\":\"mark\",\"turnBy\":\"cost\"}]}}",
            "{\"by\":\"code\",\"field\":\"kind\",\"classes\":[{\"code\":\"x\",\"preset\":{\"cost\":\"C7\"}}]}");
    for (String s : showing)
      assertThat(Outdoors.look(Look.read(s), SCHEMA))
          .as(s)
          .isEqualTo(Look.plain(GeometryKind.POINT));
    Look fine =
        Look.read(
            "{\"by\":\"code\",\"field\":\"kind\",\"classes\":[{\"code\":\"x\",\"label\":\"X\"}],\"label\":{\"template\":\"{tag}\"}}");
    assertThat(Outdoors.look(fine, SCHEMA)).isEqualTo(fine);
  }
}
