package org.whinridge.core.visit;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import java.util.Optional;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import org.junit.jupiter.api.Test;
import org.whinridge.core.form.Form;
import org.whinridge.core.form.compile.ExecutableForm;
import org.whinridge.core.form.compile.FormCompiler;
import org.whinridge.core.form.line.FormText;
import org.whinridge.core.layer.Schema;
import org.whinridge.core.place.GeometryKind;
import org.whinridge.core.value.Value;

/**
 * What inspection forms are commonly held to. All values here are common practice, no source; they
 * were given by people of the trade, none is measured.
 */
class CheckValuesTest {
  private static final Schema TABLE = new Schema(GeometryKind.TABLE, List.of(), "", List.of());

  private static ExecutableForm compiled(Form form) {
    FormCompiler.Outcome o = FormCompiler.compile(form, TABLE);
    return o.form().orElseThrow(() -> new AssertionError(o.problems()));
  }

  private static Filling open(String form) {
    return Filling.open(compiled(Form.read(form)), FormFixture.start(Optional.empty()));
  }

  private static String form(String questions) {
    return "{\"title\":\"Count\",\"sections\":[{\"questions\":[" + questions + "]}]}";
  }

  private static boolean holdsBack(Filling f, String question) {
    return f.points().stream().anyMatch(p -> p.question().equals(question) && p.kind().holdsBack());
  }

  private static Filling counted(double total, double sound, double broken) {
    Filling f =
        open(
            form(
                "{\"name\":\"sound\",\"type\":\"counter\"},{\"name\":\"broken\",\"type\":\"counter\"},"
                    + "{\"name\":\"total\",\"type\":\"counter\",\"checks\":[{\"rule\":\"total = sound + broken\",\"message\":\"the parts come to another number\"}]}"));
    f.set("total", Value.of(total));
    f.set("sound", Value.of(sound));
    f.set("broken", Value.of(broken));
    return f;
  }

  @Test
  void aTotalOf2AgainstPartsThatSumTo1IsToldAnd2Against2Passes() {
    assertThat(holdsBack(counted(2, 1, 0), "total")).isTrue();
    assertThat(holdsBack(counted(2, 1, 1), "total")).isFalse();
    assertThat(holdsBack(counted(2, 2, 0), "total")).isFalse();
  }

  @Test
  void ofAWholeOf4FourPassesAndFiveDoesNot() {
    for (int part = 0; part <= 5; part++) {
      Filling f =
          open(
              form(
                  "{\"name\":\"whole\",\"type\":\"whole\"},{\"name\":\"part\",\"type\":\"whole\",\"checks\":[{\"rule\":\"part <= whole\"}]}"));
      f.set("whole", Value.of(4));
      f.set("part", Value.of(part));
      assertThat(holdsBack(f, "part")).as("%d of 4", part).isEqualTo(part == 5);
    }
  }

  @Test
  void from10To100BothEndsBelongToTheRange() {
    for (int n : new int[] {9, 10, 11, 99, 100, 101}) {
      Filling f = open(form("{\"name\":\"n\",\"type\":\"whole\",\"from\":10,\"to\":100}"));
      f.set("n", Value.of(n));
      assertThat(holdsBack(f, "n")).as("%d", n).isEqualTo(n == 9 || n == 101);
    }
  }

  @Test
  void aCodeOf0IsAnAnswer() {
    String codes =
        IntStream.rangeClosed(0, 3)
            .mapToObj(i -> "{\"code\":\"" + i + "\",\"label\":\"grade " + i + "\"}")
            .collect(Collectors.joining(","));
    Filling f =
        open(
            form(
                "{\"name\":\"grade\",\"type\":\"choice\",\"need\":\"needed\",\"codes\":["
                    + codes
                    + "]},{\"name\":\"why\",\"type\":\"text\",\"askWhen\":\"grade = '0'\"}"));
    assertThat(holdsBack(f, "grade")).isTrue();
    f.tap("grade", "", "0");
    assertThat(f.value("grade")).isEqualTo(Value.text("0"));
    assertThat(holdsBack(f, "grade")).isFalse();
    assertThat(f.isAsked("why")).isTrue();
  }

  @Test
  void aTextOf256CharactersFitsWhere256AreTheMost() {
    for (int n : new int[] {255, 256, 257}) {
      Filling f = open(form("{\"name\":\"note\",\"type\":\"text\",\"most\":256}"));
      f.set("note", Value.text("é".repeat(n)));
      assertThat(holdsBack(f, "note")).as("%d characters", n).isEqualTo(n == 257);
    }
  }

  @Test
  void fortyQuestionsAnd28ReferencePicturesAreOneForm() {
    String lines =
        IntStream.rangeClosed(1, 40)
            .mapToObj(i -> "Question " + i + " {q" + i + "}: yes/no *\n")
            .collect(Collectors.joining());
    Form typed = new Form("Forty", FormText.read(lines, List.of()).sections());
    assertThat(typed.questions()).hasSize(40);
    String json = typed.json().toString();
    for (int i = 1; i <= 28; i++)
      json =
          json.replace(
              "\"name\":\"q" + i + "\"", "\"picture\":\"p" + i + "\",\"name\":\"q" + i + "\"");
    Form form = Form.read(json);
    assertThat(form.files()).hasSize(28);
    Filling f = Filling.open(compiled(form), FormFixture.start(Optional.empty()));
    assertThat(f.points()).hasSize(40);
    for (int i = 1; i <= 40; i++) f.set("q" + i, Value.YES);
    assertThat(f.isComplete()).isTrue();
  }
}
