package org.whinridge.app;

import static org.assertj.core.api.Assertions.assertThat;

import com.eclipsesource.json.Json;
import com.eclipsesource.json.JsonArray;
import com.eclipsesource.json.JsonValue;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Set;
import java.util.TreeSet;
import org.junit.jupiter.api.Test;
import org.whinridge.core.look.Icon;
import org.whinridge.formats.look.IconReader;

/** The shipped icons: each can be read as an own icon is, and is painted in the look's colour. */
class IconLibraryTest {
  private static JsonArray icons() throws Exception {
    try (var all = Files.list(Path.of("target/classes/static/assets"))) {
      Path file =
          all.filter(p -> p.getFileName().toString().matches("icons-.*\\.json"))
              .findFirst()
              .orElseThrow();
      return Json.parse(Files.readString(file)).asArray();
    }
  }

  @Test
  void eachIconCanBeReadAndTakesTheColourOfTheLook() throws Exception {
    JsonArray all = icons();
    assertThat(all.size()).isGreaterThan(300);
    for (JsonValue v : all) {
      String label = v.asObject().getString("label", "");
      IconReader.Read read =
          IconReader.read(
              v.asObject().getString("svg", "").getBytes(StandardCharsets.UTF_8), label);
      assertThat(read.notes()).as(label).isEmpty();
      assertThat(read.icon().parts()).as(label).isNotEmpty();
      assertThat(read.icon().parts().stream().map(Icon.Part::fill)).as(label).contains("colour");
    }
  }

  @Test
  void everydayThingsFindTheirs() throws Exception {
    Set<String> words = new TreeSet<>();
    for (JsonValue v : icons())
      for (String w : v.asObject().getString("words", "").split(" ")) words.add(w);
    assertThat(words)
        .contains("tree", "sign", "hydrant", "bench", "pole", "manhole", "lamp", "gate", "pipe");
  }
}
