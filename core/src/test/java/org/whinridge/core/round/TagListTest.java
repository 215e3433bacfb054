package org.whinridge.core.round;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.junit.jupiter.api.Test;
import org.whinridge.core.layer.Feature;
import org.whinridge.core.layer.Field;
import org.whinridge.core.layer.FieldType;
import org.whinridge.core.layer.Schema;
import org.whinridge.core.place.GeometryKind;
import org.whinridge.core.read.LayerColumns;
import org.whinridge.core.value.Value;

class TagListTest {
  private static LayerColumns layer(String... tags) {
    Schema schema =
        new Schema(
            GeometryKind.TABLE, List.of(Field.of("tag", "Tag", FieldType.TEXT)), "tag", List.of());
    List<Feature> all = new ArrayList<>();
    for (int i = 0; i < tags.length; i++)
      all.add(
          new Feature(
              id(i),
              Optional.empty(),
              tags[i].isEmpty() ? Map.of() : Map.of("tag", Value.text(tags[i])),
              1));
    return LayerColumns.of(schema, all);
  }

  private static String id(int i) {
    return String.format("00000000-0000-0000-0000-%012d", i);
  }

  @Test
  void listsAreReadHoweverTheyArePasted() {
    assertThat(TagList.read("OS-1\nOS-2\r\nOS-3\r").tags()).containsExactly("OS-1", "OS-2", "OS-3");
    assertThat(TagList.read("OS-1, OS-2;OS-3\tOS-4").tags()).hasSize(4);
    assertThat(TagList.read("\"OS-1\",'OS-2', \u201cOS-3\u201d \u2018OS 4\u2019").tags())
        .as("blanks part nothing: a tag may have some")
        .containsExactly("OS-1", "OS-2", "\u201cOS-3\u201d \u2018OS 4\u2019");
    assertThat(TagList.read("\"weir, the \"\"old\"\" one\";5").tags())
        .containsExactly("weir, the \"old\" one", "5");
    assertThat(TagList.read("\"never closed, one\nOS-2").tags())
        .containsExactly("never closed, one", "OS-2");
    assertThat(TagList.read("12\" pipe, 3").tags()).containsExactly("12\" pipe", "3");
    assertThat(TagList.read(" \n,,;\t\u00a0").tags()).isEmpty();
  }

  @Test
  void doublesAreToldOnceWhateverTheirCase() {
    TagList l = TagList.read("OS-1 os-1 \nOS-2\nos-2\nOs-2\nOS- 2");
    assertThat(l.tags()).containsExactly("OS-1 os-1", "OS-2");
    assertThat(l.twice()).containsExactly("OS-2");
  }

  @Test
  void tagsAreFoundAndThoseThatAreNotAreNamed() {
    LayerColumns layer = layer("OS-1", "", "os-2", "OS-3", "OS-3");
    TagList.Found f = TagList.read("OS-3, OS-9, OS-2, OS 1, OS-1").in(layer, "tag");
    assertThat(f.features()).containsExactly(id(3), id(4), id(2), id(0));
    assertThat(f.missing()).containsExactly("OS-9", "OS 1");
    assertThat(f.several()).containsExactly("OS-3");
    assertThat(TagList.read("").in(layer, "tag").features()).isEmpty();
  }
}
