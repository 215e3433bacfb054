package org.whinridge.app;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.util.Arrays;
import java.util.List;
import java.util.stream.Stream;
import org.junit.jupiter.api.Test;
import org.whinridge.core.look.Breaks;

/**
 * Natural breaks against a reference package (npm simple-statistics, its function ckmeans: H. Wang,
 * M. Song, "Ckmeans.1d.dp", The R Journal 3 (2011)), which finds the best classes by another way.
 */
class NaturalBreaksOutsideTest {
  @Test
  void theReferencePackageFindsTheSameBreaks() throws Exception {
    Process p =
        new ProcessBuilder("node", "check/breaks.mjs")
            .directory(Path.of("src/main/frontend").toFile())
            .redirectError(ProcessBuilder.Redirect.INHERIT)
            .start();
    List<String> lines =
        new String(p.getInputStream().readAllBytes(), StandardCharsets.UTF_8).lines().toList();
    assertThat(p.waitFor()).as("node's exit code").isZero();
    assertThat(lines).hasSizeGreaterThan(100);
    for (String line : lines) {
      String[] parts = line.split("\\|");
      double[] values = numbers(parts[1]);
      Arrays.sort(values);
      assertThat(Breaks.by(Breaks.Method.NATURAL, values, Integer.parseInt(parts[0])))
          .as(line)
          .containsExactly(numbers(parts[2]));
    }
  }

  private static double[] numbers(String s) {
    return Stream.of(s.split(" ")).mapToDouble(Double::parseDouble).toArray();
  }
}
