package org.whinridge.core.form.line;

import static org.assertj.core.api.Assertions.assertThat;

import com.eclipsesource.json.Json;
import com.eclipsesource.json.JsonArray;
import com.eclipsesource.json.JsonObject;
import java.util.ArrayList;
import java.util.List;
import java.util.Random;
import org.junit.jupiter.api.Test;
import org.whinridge.core.form.Form;
import org.whinridge.core.form.Question;

class FormTextTest {
  private static final String VISIT =
      """
      Tag {tag} *
      --- page
      # Structure
      Kind: weir | sluice | tide flap *
      ## Water
      Silt depth (mm) {silt} 0..500 *
      Freeboard (m) 0.00..5.00
      ##
      Notes: long text // what else was seen
      # Defects {defects} x0..20 again
      What: crack | leak | scour
      Photo of it x1..3
      #
      Seen by: signature
      """;

  private static Form form(FormText.Read read) {
    return new Form("A visit", read.sections());
  }

  @Test
  void aTextMakesAFormAndTheFormSaysItAgain() {
    FormText.Read read = FormText.read(VISIT, List.of());
    assertThat(read.problems()).isEmpty();
    Form f = form(read);
    assertThat(f.sections()).hasSize(4);
    assertThat(f.questions().stream().map(Question::name))
        .containsExactly(
            "tag", "kind", "silt", "freeboard", "notes", "what", "photo_of_it", "seen_by");
    assertThat(f.sections().get(1).startsPage()).isTrue();
    assertThat(f.sections().get(1).blocks()).hasSize(1);
    assertThat(f.question("silt").orElseThrow().layout().block()).isEqualTo("water");
    assertThat(f.sections().get(2).rows().orElseThrow().most()).isEqualTo(20);
    assertThat(f.sections().get(2).rows().orElseThrow().fromLastVisit()).isTrue();
    assertThat(f.sections().get(3).title()).isEmpty();
    String text = FormText.of(f);
    assertThat(form(FormText.read(text, List.of())).json()).isEqualTo(f.json());
    assertThat(text).contains("Kind {kind}: weir | sluice | tide flap *\n", "## Water {water}\n");
  }

  @Test
  void whatALineCantSayIsKept() {
    Form f = form(FormText.read(VISIT, List.of()));
    JsonObject silt =
        f.question("silt")
            .orElseThrow()
            .json()
            .add("askWhen", "kind = 'weir'")
            .add("prefill", Json.parse("[{\"from\":\"asset\"}]"))
            .add("in", Json.parse("{\"cy\":{\"label\":\"Dyfnder\"}}"));
    JsonObject json = f.json();
    json.get("sections").asArray().get(1).asObject().get("questions").asArray().set(1, silt);
    Form more = Form.read(json.toString());
    String text = FormText.of(more);
    assertThat(text).contains("Silt depth (mm) {silt} 0..500 * …");
    assertThat(FormText.read(text, more).sections()).isEqualTo(more.sections());
    String changed = text.replace("0..500 * …", "0..800").replace("Silt depth", "Depth of silt");
    Question q = form(FormText.read(changed, more)).question("silt").orElseThrow();
    assertThat(q.label()).isEqualTo("Depth of silt");
    assertThat(q.limits().to()).hasValue(800);
    assertThat(q.need()).isEqualTo(Question.Need.FREE);
    assertThat(q.logic().askWhen()).isEqualTo("kind = 'weir'");
    assertThat(q.prefill()).hasSize(1);
    assertThat(q.texts().get("label", "cy")).isEqualTo("Dyfnder");
  }

  @Test
  void linesThatCantBeReadArePassedOverAndTold() {
    FormText.Read read =
        FormText.read("Tag\nLining: bricks\n\nTag\nDepth 5..1\n# List x..\n## B {2}\n", List.of());
    assertThat(read.questions().stream().map(Question::name)).containsExactly("tag", "tag_2");
    assertThat(read.problems().stream().map(FormText.Problem::number)).containsExactly(2, 5, 7);
    assertThat(read.sections().get(1).name()).isEqualTo("list");
  }

  @Test
  void namesThatLinesGiveAreTheirs() {
    FormText.Read read = FormText.read("Depth\nOther {depth}\nOther {depth}\n", List.of("other"));
    assertThat(read.questions().stream().map(Question::name)).containsExactly("depth_2", "depth");
    assertThat(read.problems()).hasSize(1);
  }

  @Test
  void fiveHundredLinesOfWhichFortyCantBeRead() {
    StringBuilder b = new StringBuilder();
    for (int i = 0; i < 500; i++)
      b.append(i % 12 == 5 && i < 480 ? "Broken " + i + ": nothing known" : "Question " + i)
          .append('\n');
    FormText.Read read = FormText.read(b.toString(), List.of());
    assertThat(read.problems()).hasSize(40);
    assertThat(read.questions()).hasSize(460);
  }

  /** Seeded: any form gives itself back by its text. */
  @Test
  void aFormIsTheSameAfterItsText() {
    Random r = new Random(20261130);
    for (int n = 0; n < 300; n++) {
      Form f = any(r);
      FormText.Read read = FormText.read(FormText.of(f), f);
      assertThat(read.problems()).as(FormText.of(f)).isEmpty();
      assertThat(f.with(read.sections()).json().toString())
          .as(FormText.of(f))
          .isEqualTo(f.json().toString());
    }
  }

  /** A form of whatever can stand in one, as far as its file can hold it. */
  static Form any(Random r) {
    JsonArray sections = new JsonArray();
    int count = 0;
    for (int s = r.nextInt(5); s >= 0; s--) {
      JsonObject section =
          new JsonObject().add("title", r.nextInt(4) == 0 ? "" : "Part " + r.nextInt(3));
      boolean list = r.nextInt(4) == 0;
      if (list)
        section.add("name", "list_" + s).add("rows", Json.parse("{\"most\":" + r.nextInt(9) + "}"));
      if (r.nextInt(4) == 0) section.add("askWhen", "q0 = 'x'");
      if (r.nextInt(3) == 0) section.add("startsPage", true);
      List<String> blocks = new ArrayList<>();
      JsonArray written = new JsonArray();
      for (int b = r.nextInt(3); b > 0; b--) {
        blocks.add("b" + s + b);
        JsonObject block =
            new JsonObject().add("name", "b" + s + b).add("title", "Block " + r.nextInt(2));
        if (r.nextBoolean()) block.add("askWhen", "q0 = 'y'");
        written.add(block);
      }
      if (!blocks.isEmpty()) section.add("blocks", written);
      JsonArray questions = new JsonArray();
      for (int q = r.nextInt(6); q > 0; q--) {
        JsonObject o =
            Lines.made(QuestionLineTest.any(r), List.of()).json().set("name", "q" + count++);
        if (r.nextInt(4) == 0) o.set("askWhen", "q0 = 'z'");
        if (r.nextInt(5) == 0) o.set("hint", "two\nlines");
        if (r.nextInt(5) == 0) o.set("readOnly", true);
        if (!blocks.isEmpty() && r.nextBoolean())
          o.set("block", blocks.get(r.nextInt(blocks.size())));
        if (r.nextInt(9) == 0) o.set("block", "of nothing");
        questions.add(o);
      }
      sections.add(section.add("questions", questions));
    }
    return Form.read(new JsonObject().add("title", "Any").add("sections", sections).toString());
  }
}
