package org.whinridge.core.form.edit;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import org.junit.jupiter.api.Test;
import org.whinridge.core.form.Form;
import org.whinridge.core.form.line.FormText;
import org.whinridge.core.said.Said;

class FormChangesTest {
  private static Form form(String title, String text) {
    return new Form(title, FormText.read(text, List.of()).sections());
  }

  private static List<String> keys(List<Said> said) {
    return said.stream().map(Said::key).toList();
  }

  @Test
  void eachChangeIsSaidOnce() {
    Form before = form("A", "# One\nTag\nKind: weir | sluice\nSilt (mm) 0..500\n");
    Form after =
        form("B", "# Two\nTag\nKind: weir | sluice | gate *\nSilt {silt}: text\nWidth (m) *\n");
    assertThat(keys(FormChanges.between(before, after)))
        .containsExactly(
            "formChange.title",
            "formChange.changed",
            "formChange.changed",
            "formChange.added",
            "formChange.arranged");
    assertThat(keys(FormChanges.outdoors(before, after)))
        .containsExactly("formChange.otherKind", "formChange.newNeeded");
    assertThat(keys(FormChanges.between(after, before))).contains("formChange.removed");
    assertThat(keys(FormChanges.outdoors(after, before))).contains("formChange.goneOutdoors");
    Form moved = form("A", "# One\nKind: weir | sluice\nTag\nSilt (mm) 0..500\n");
    assertThat(keys(FormChanges.between(before, moved))).containsExactly("formChange.arranged");
    assertThat(FormChanges.between(before, before)).isEmpty();
    assertThat(FormChanges.outdoors(before, before)).isEmpty();
  }
}
