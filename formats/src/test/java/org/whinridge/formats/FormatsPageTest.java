package org.whinridge.formats;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.junit.jupiter.api.Test;

/** The page of what files may hold: each line names a test, and that test is there. */
class FormatsPageTest {
  private static final Path ROOT = Path.of("..");
  private static final Pattern NAMED = Pattern.compile("`([A-Z]\\w+Test)(?:\\.(\\w+))?`");

  private static Path source(String test) throws Exception {
    for (String module : List.of("formats", "core", "app"))
      try (var all = Files.walk(ROOT.resolve(module).resolve("src/test/java"))) {
        var found = all.filter(p -> p.endsWith(test + ".java")).findFirst();
        if (found.isPresent()) return found.get();
      }
    throw new AssertionError("no such test: " + test);
  }

  @Test
  void eachLineIsATest() throws Exception {
    List<String> lines = new ArrayList<>();
    for (String line : Files.readAllLines(ROOT.resolve("docs/formats.md")))
      if (line.startsWith("| ") && !line.endsWith(" Test |")) lines.add(line);
    assertThat(lines.size()).isGreaterThan(50);
    for (String line : lines) {
      String last = line.substring(line.lastIndexOf('|', line.length() - 2) + 1);
      if (last.contains("as above")) continue;
      Matcher m = NAMED.matcher(last);
      assertThat(m.find()).as(line).isTrue();
      do {
        String text = Files.readString(source(m.group(1)));
        if (m.group(2) != null) assertThat(text).as(line).contains("void " + m.group(2) + "(");
      } while (m.find());
    }
  }
}
