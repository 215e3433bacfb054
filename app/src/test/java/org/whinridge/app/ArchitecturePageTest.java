package org.whinridge.app;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Set;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import java.util.stream.Stream;
import org.junit.jupiter.api.Test;

/** The pages about the architecture name what is there: classes, packages, scripts. */
class ArchitecturePageTest {
  private static final Path ROOT = Path.of("..");
  private static final Pattern CODE = Pattern.compile("`([^`]+)`");

  private static Set<String> files() throws IOException {
    Set<String> out = new LinkedHashSet<>();
    for (String module : List.of("core", "formats", "field-engine", "demo", "app", "bench"))
      try (Stream<Path> all = Files.walk(ROOT.resolve(module).resolve("src"))) {
        all.filter(p -> !p.toString().contains("node_modules"))
            .forEach(p -> out.add(ROOT.relativize(p).toString()));
      }
    return out;
  }

  @Test
  void everyClassPackageAndScriptNamedIsThere() throws IOException {
    Set<String> files = files();
    List<String> gone = new ArrayList<>();
    for (String page : List.of("architecture.md", "extending.md")) {
      Matcher m = CODE.matcher(Files.readString(ROOT.resolve("docs").resolve(page)));
      while (m.find()) {
        String named = m.group(1);
        if (named.matches("[A-Z][A-Za-z]+[a-z]\\w*(\\.\\w+)?") // a class, perhaps with a member
            && files.stream().noneMatch(f -> f.endsWith("/" + named.split("\\.")[0] + ".java"))
            && !files.contains("app/src/main/frontend/src/" + named)) gone.add(page + ": " + named);
        if (named.matches("(core|formats|app)/[a-z/]+(/[A-Z]\\w+)?(\\.\\w+)?")) {
          String path = named.replaceAll("(/[A-Z]\\w+)\\.\\w+$", "$1");
          if (files.stream()
              .noneMatch(
                  f ->
                      f.contains("java/org/whinridge/" + path + ".java")
                          || f.endsWith("java/org/whinridge/" + path)
                          || f.equals(named))) gone.add(page + ": " + named);
        }
        if (named.matches("[a-z/-]+\\.js")
            && files.stream()
                .noneMatch(
                    f -> f.startsWith("app/src/main/frontend/src/") && f.endsWith("/" + named)))
          gone.add(page + ": " + named);
      }
    }
    assertThat(gone).isEmpty();
  }
}
