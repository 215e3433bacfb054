package org.whinridge.formats.xlsform;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.OutputStream;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.EnumSource;
import org.whinridge.core.form.Form;
import org.whinridge.core.form.Question;
import org.whinridge.core.form.QuestionType;
import org.whinridge.core.form.compile.ExecutableForm;
import org.whinridge.core.form.compile.FormCompiler;
import org.whinridge.core.layer.Schema;
import org.whinridge.core.place.GeometryKind;

/** Every kind of question, and every way to lay one out, to a workbook and back. */
class XlsFormTypesTest {
  private static Form back(String question, Path folder) throws Exception {
    Form form =
        Form.read(
            "{\"title\":\"T\",\"sections\":[{\"title\":\"S\",\"questions\":[" + question + "]}]}");
    var compiled =
        FormCompiler.compile(form, new Schema(GeometryKind.TABLE, List.of(), "", List.of()));
    ExecutableForm x = compiled.form().orElseThrow(() -> new AssertionError(compiled.problems()));
    Path file = folder.resolve("t.xlsx");
    try (OutputStream out = Files.newOutputStream(file)) {
      XlsFormWriter.write(x, out);
    }
    return XlsFormReader.read(file).form();
  }

  @ParameterizedTest
  @EnumSource(QuestionType.class)
  void everyKindComesBack(QuestionType type, @TempDir Path folder) throws Exception {
    String codes =
        type.hasCodes()
            ? ",\"codes\":[{\"code\":\"1\",\"label\":\"One\"},{\"code\":\"2\",\"label\":\"Two\"}]"
            : "";
    String link = type == QuestionType.LINK ? ",\"layer\":\"l\"" : "";
    Form form =
        back(
            "{\"name\":\"q\",\"label\":\"Quite so\",\"hint\":\"h\",\"type\":\""
                + type.id()
                + "\""
                + codes
                + link
                + "},{\"name\":\"other\"}",
            folder);
    Question q = form.question("q").orElseThrow();
    assertThat(q.type()).isEqualTo(type);
    assertThat(q.label()).isEqualTo("Quite so");
    assertThat(q.hint()).isEqualTo("h");
    if (type.hasCodes())
      assertThat(q.codes()).extracting(c -> c.code() + c.label()).containsExactly("1One", "2Two");
  }

  @ParameterizedTest
  @CsvSource(
      delimiter = '|',
      quoteCharacter = '`',
      value = {
        "`\"as\":\"list\",\"type\":\"choice\",\"codes\":[{\"code\":\"a\"}]` | as",
        "`\"as\":\"side by side\",\"type\":\"choices\",\"codes\":[{\"code\":\"a\"}]` | as",
        "`\"as\":\"compact\",\"type\":\"choice\",\"codes\":[{\"code\":\"a\"}]` | as",
        "`\"need\":\"needed\"` | need",
        "`\"readOnly\":true` | readOnly",
        "`\"askWhen\":\"other = 'x'\"` | askWhen",
        "`\"askWhen\":\"NOT (other = 'x' AND other IS NOT NULL)\"` | askWhen",
        "`\"type\":\"decimal\",\"workOut\":\"length(other) * 2 + 1\"` | workOut",
        "`\"prefill\":[{\"from\":\"fixed\",\"value\":\"gate\"}]` | prefill",
        "`\"type\":\"whole\",\"prefill\":[{\"from\":\"fixed\",\"value\":7}]` | prefill",
        "`\"type\":\"date\",\"prefill\":[{\"from\":\"worked out\",\"formula\":\"today()\"}]` | prefill",
        "`\"type\":\"decimal\",\"checks\":[{\"rule\":\"q > 3 OR q < 1\",\"message\":\"no\",\"weight\":\"firm\"}]` | checks",
        "`\"in\":{\"cy\":{\"label\":\"Ie\"}}` | in"
      })
  void whatHasACounterpartComesBackAsItWas(String members, String member, @TempDir Path folder)
      throws Exception {
    String question = "{\"name\":\"q\",\"label\":\"Q\"," + members + "}";
    Question before =
        Form.read("{\"title\":\"T\",\"sections\":[{\"questions\":[" + question + "]}]}")
            .question("q")
            .orElseThrow();
    Question after = back(question + ",{\"name\":\"other\"}", folder).question("q").orElseThrow();
    assertThat(String.valueOf(after.json().get(member)))
        .isEqualTo(String.valueOf(before.json().get(member)));
  }
}
