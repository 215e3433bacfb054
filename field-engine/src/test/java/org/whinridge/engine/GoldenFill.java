package org.whinridge.engine;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import org.whinridge.core.said.English;

/**
 * Writes the results of golden lines that have none yet, as core on the JVM gives them, what is
 * told in English; whoever adds lines reads every one before it is kept. With "all" as first
 * argument every line is written anew and those that changed are printed.
 */
final class GoldenFill {
  private GoldenFill() {}

  public static void main(String[] args) throws IOException {
    boolean all = args.length > 0 && args[0].equals("all");
    Map<String, String> defined = new LinkedHashMap<>();
    for (String name : GoldenVectors.FILES) {
      Path file = Path.of("src/test/resources/golden", name);
      if (!Files.exists(file)) continue;
      List<String> out = new ArrayList<>();
      for (String line : Files.readAllLines(file)) {
        String[] p = line.split("\t", -1);
        if (p[0].equals("define")) defined.put(p[1], p[2]);
        if (p[0].equals("define") || p.length < 2 || (p.length > 2 && !all)) {
          out.add(line);
          continue;
        }
        String now = p[0] + "\t" + p[1] + "\t" + run(p[0], GoldenVectors.whole(p[1], defined));
        if (!now.equals(line)) System.out.println(now);
        out.add(now);
      }
      Files.write(file, out);
    }
  }

  private static String run(String kind, String input) {
    try {
      return English.inText(Golden.run(kind, input));
    } catch (RuntimeException e) {
      return "THROWN " + e;
    }
  }
}
