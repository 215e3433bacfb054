package org.whinridge.demo;

import static org.assertj.core.api.Assertions.assertThat;

import com.eclipsesource.json.JsonObject;
import com.eclipsesource.json.JsonValue;
import java.io.ByteArrayInputStream;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import javax.imageio.ImageIO;
import org.junit.jupiter.api.Test;
import org.whinridge.core.form.Form;
import org.whinridge.core.form.Section;
import org.whinridge.core.form.Translations;
import org.whinridge.core.form.compile.ExecutableForm;
import org.whinridge.core.form.compile.FormCompiler;
import org.whinridge.core.layer.Feature;
import org.whinridge.core.layer.Schema;
import org.whinridge.core.prefill.PlaceIndex;

/** The board's forms, their drawings, and two years of visits. */
class OstreyFormsTest {
  private static final LocalDate TODAY = LocalDate.of(2026, 11, 30);
  private final Ostrey isle = new Ostrey();

  private Schema schema(String layer) {
    return switch (layer) {
      case "Control structures" -> Ostrey.structuresSchema();
      case "Banks and drains" -> Ostrey.linesSchema();
      case "Washlands" -> Ostrey.washlandsSchema();
      case "Beats" -> Ostrey.beatsSchema();
      case "Soil units" -> Ostrey.soilSchema();
      default -> throw new IllegalArgumentException(layer);
    };
  }

  private List<Feature> features(String layer) {
    return switch (layer) {
      case "Control structures" -> isle.structures();
      case "Banks and drains" -> isle.lines();
      case "Washlands" -> isle.washlands();
      case "Beats" -> isle.beats();
      case "Soil units" -> isle.soils();
      default -> throw new IllegalArgumentException(layer);
    };
  }

  private static Form form(OstreyForms.Shipped s) {
    return OstreyForms.form(s, layer -> layer, picture -> picture);
  }

  private ExecutableForm compiled(OstreyForms.Shipped s) {
    Map<String, Schema> others = new LinkedHashMap<>();
    form(s).otherLayers().keySet().forEach(l -> others.put(l, schema(l)));
    FormCompiler.Outcome o = FormCompiler.compile(form(s), schema(s.layer()), others);
    assertThat(o.problems()).as(s.file()).isEmpty();
    assertThat(o.notes()).as(s.file()).isEmpty();
    return o.form().orElseThrow();
  }

  private List<OstreyVisits.Made> visits(OstreyForms.Shipped s, int aYear) {
    ExecutableForm f = compiled(s);
    Map<String, PlaceIndex> lookups = new LinkedHashMap<>();
    f.form()
        .otherLayers()
        .keySet()
        .forEach(l -> lookups.put(l, new PlaceIndex(schema(l), features(l))));
    return new OstreyVisits(f, lookups)
        .of(features(s.layer()), TODAY, aYear, List.of("inspector1", "inspector2"));
  }

  @Test
  void theFormsAreSoundAndSayEverythingInTwoLanguages() {
    for (OstreyForms.Shipped s : OstreyForms.ALL) {
      Form f = compiled(s).form();
      assertThat(Translations.missing(f, "de")).as(s.file()).isZero();
      assertThat(f.sections()).as(s.file()).hasSizeGreaterThan(2).anyMatch(Section::isList);
      assertThat(f.sections().stream().filter(Section::startsPage)).hasSizeGreaterThan(1);
      assertThat(f.otherLayers()).as(s.file()).isNotEmpty();
      assertThat(f.questions()).anyMatch(q -> q.type().id().equals("photo"));
    }
  }

  /** 28 reference pictures in all: common practice, no source. */
  @Test
  void everyReferencePictureIsDrawnAndNoTwoAreTheSame() throws Exception {
    List<String> names = new ArrayList<>();
    List<Integer> drawn = new ArrayList<>();
    for (OstreyForms.Shipped s : OstreyForms.ALL) names.addAll(OstreyForms.pictures(s));
    for (String name : names) {
      byte[] jpeg = OstreyDrawings.jpeg(name);
      assertThat(ImageIO.read(new ByteArrayInputStream(jpeg)).getWidth()).isEqualTo(480);
      assertThat(OstreyDrawings.jpeg(name)).isEqualTo(jpeg);
      drawn.add(Arrays.hashCode(jpeg));
    }
    assertThat(names).hasSize(28);
    assertThat(drawn).doesNotHaveDuplicates();
  }

  @Test
  void aVisitThatCameInHasNothingOpenThatHoldsItBack() {
    for (OstreyForms.Shipped s : OstreyForms.ALL) {
      List<OstreyVisits.Made> all = visits(s, 1);
      assertThat(all).hasSizeGreaterThan(features(s.layer()).size());
      List<String> held = new ArrayList<>();
      for (OstreyVisits.Made m : all) {
        for (JsonValue p : m.result().get("open").asArray())
          if (!p.asObject().getString("kind", "").equals("wanted")) held.add(p.toString());
        assertThat(m.startedAt()).isBefore(m.endedAt());
        assertThat(m.endedAt().toString()).isLessThan(TODAY.toString());
        assertThat(m.startedAt().toString()).isGreaterThan(TODAY.minusYears(3).toString());
      }
      assertThat(held).as(s.file()).isEmpty();
      assertThat(visits(s, 1).get(7).saved()).isEqualTo(all.get(7).saved());
    }
  }

  @Test
  void coversSumToTheWholeAndDefectsLieOnTheirLength() {
    for (OstreyVisits.Made m : visits(OstreyForms.ALL.get(0), 1))
      assertThat(m.result().get("kept").asObject().getInt("cover_total", 0)).isEqualTo(100);
    int defects = 0;
    int again = 0;
    for (OstreyVisits.Made m : visits(OstreyForms.ALL.get(1), 2)) {
      JsonValue rows = m.result().get("kept").asObject().get("defects");
      if (rows == null) continue;
      double length = ((org.whinridge.core.value.Value.Num) m.feature().value("length_m")).value();
      for (JsonValue v : rows.asArray()) {
        JsonObject row = v.asObject();
        JsonObject answers = row.get("answers").asObject();
        defects++;
        if (!row.getString("state", "").equals("new")) again++;
        if (answers.get("chainage_m") != null)
          assertThat(answers.getDouble("chainage_m", -1)).isBetween(0.0, length + 0.1);
      }
    }
    assertThat(defects).isGreaterThan(100);
    assertThat(again).as("rows that came back").isGreaterThan(30);
  }
}
