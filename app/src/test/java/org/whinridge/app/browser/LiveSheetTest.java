package org.whinridge.app.browser;

import static com.microsoft.playwright.assertions.PlaywrightAssertions.assertThat;
import static org.assertj.core.api.Assertions.assertThat;

import com.microsoft.playwright.Page;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Random;
import java.util.UUID;
import org.junit.jupiter.api.Test;
import org.locationtech.jts.geom.Coordinate;
import org.springframework.beans.factory.annotation.Autowired;
import org.whinridge.app.layer.Layer;
import org.whinridge.app.layer.LayerMaking;
import org.whinridge.app.layer.Layers;
import org.whinridge.app.project.Projects;
import org.whinridge.core.layer.Feature;
import org.whinridge.core.layer.Field;
import org.whinridge.core.layer.FieldType;
import org.whinridge.core.layer.Schema;
import org.whinridge.core.place.Geodesy;
import org.whinridge.core.place.GeometryJson;
import org.whinridge.core.place.GeometryKind;
import org.whinridge.core.said.Said;
import org.whinridge.core.value.Value;

/** The live sheet of the form page, with features beyond the first and layers beyond the small. */
class LiveSheetTest extends BrowserTest {
  @Autowired LayerMaking making;
  @Autowired Layers layers;
  @Autowired Projects projects;

  /** 6,000 posts; one stands at the place of each of two features, the rest all over the isle. */
  private UUID posts(Coordinate first, Coordinate last) throws Exception {
    Schema schema =
        new Schema(
            GeometryKind.POINT,
            List.of(Field.of("name", "Name", FieldType.TEXT)),
            "name",
            List.of());
    Random random = new Random(7);
    return making.make(
        projects.byKey("ostrey").id(),
        "Posts",
        schema,
        Said.text("test"),
        "coordinator",
        take -> {
          take.accept(post(first, "At the first"));
          take.accept(post(last, "At the last"));
          for (int i = 0; i < 6000; i++)
            take.accept(
                post(
                    new Coordinate(
                        -10.35 + random.nextDouble() * 0.4, 57.8 + random.nextDouble() * 0.2),
                    "P" + i));
        });
  }

  private static Feature post(Coordinate at, String name) {
    return new Feature(
        UUID.randomUUID().toString(),
        Optional.of(GeometryJson.WGS84.createPoint(at)),
        Map.of("name", Value.text(name)),
        1);
  }

  @Test
  void everyFeatureIsReachedAndLargeLayersAreLookedUpAroundIt() throws Exception {
    Layer layer =
        layers.list(projects.byKey("ostrey").id()).stream()
            .filter(l -> l.name().equals("Control structures"))
            .findFirst()
            .orElseThrow();
    List<Feature> all = layers.first(layer, 1000);
    Coordinate first = Geodesy.anchor(all.get(0).geometry().orElseThrow());
    Coordinate last = Geodesy.anchor(all.get(all.size() - 1).geometry().orElseThrow());
    UUID posts = posts(first, last);
    Page desk = stage.desk("coordinator");
    desk.navigate(stage.base() + "/p/ostrey/forms");
    desk.click("main td a:text-is('Structure visit')");
    desk.waitForSelector("#form-page[data-ready]");
    Object was =
        prefill(
            desk,
            "(state) => [{ from: 'place', ...state.lookups.find((l) => l.id === '"
                + posts
                + "').lookUp, field: 'name' }]");
    desk.reload();
    desk.waitForSelector("#form-page[data-ready]");
    var notes = desk.locator("#live-sheet [data-question=notes]");
    assertThat(desk.locator("#form-page")).containsText("1 of " + all.size());
    assertThat(notes.locator("textarea, input").first()).hasValue("At the first");
    assertThat(notes).containsText("looked up in Posts");
    desk.locator("[aria-label='Previous feature']").first().click();
    assertThat(desk.locator("#form-page")).containsText(all.size() + " of " + all.size());
    assertThat(notes.locator("textarea, input").first()).hasValue("At the last");
    prefill(desk, "(state) => (" + was + ")"); // other stories publish this draft
    assertThat(stage.scriptErrors()).isEmpty();
    desk.context().close();
  }

  /** Gives the notes another prefill, by an expression over the form's state; gives the old one. */
  private static Object prefill(Page desk, String value) {
    return desk.evaluate(
        """
        async () => {
          const d = document.getElementById("form-page").dataset;
          const api = `/api/p/${d.project}/forms/${d.form}`;
          const state = await (await fetch(api)).json();
          const was = state.form.sections.flatMap((s) => s.questions).find((q) => q.name === "notes").prefill ?? [];
          const headers = { "Content-Type": "application/json", [document.querySelector("meta[name=csrf-header]").content]: document.querySelector("meta[name=csrf-token]").content };
          const edit = { op: "set", question: "notes", property: "prefill", value: EXPRESSION(state) };
          const answer = await fetch(api + "/edits", { method: "POST", headers, body: JSON.stringify({ revision: state.revision, edit }) });
          if (!answer.ok) throw new Error(await answer.text());
          return JSON.stringify(was);
        }
        """
            .replace("EXPRESSION", "(" + value + ")"));
  }
}
