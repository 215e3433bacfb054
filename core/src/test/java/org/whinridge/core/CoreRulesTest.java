package org.whinridge.core;

import static com.tngtech.archunit.lang.syntax.ArchRuleDefinition.noClasses;
import static com.tngtech.archunit.library.dependencies.SlicesRuleDefinition.slices;
import static org.assertj.core.api.Assertions.assertThat;

import com.tngtech.archunit.base.DescribedPredicate;
import com.tngtech.archunit.core.domain.AccessTarget;
import com.tngtech.archunit.core.domain.JavaCall;
import com.tngtech.archunit.core.importer.ImportOption;
import com.tngtech.archunit.junit.AnalyzeClasses;
import com.tngtech.archunit.junit.ArchTest;
import com.tngtech.archunit.lang.ArchRule;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.stream.Stream;
import org.junit.jupiter.api.Test;

/**
 * What core may never use, since it must give the same results compiled for the browser and must be
 * replayable.
 */
@AnalyzeClasses(
    packages = "org.whinridge.core",
    importOptions = ImportOption.DoNotIncludeTests.class)
class CoreRulesTest {
  /** The packages right under core, as they stand in the sources. */
  private static final List<String> PARTS = parts();

  private static final Map<String, Set<String>> BANNED =
      Map.of(
          "java.lang.String",
          Set.of("format", "formatted", "lines"),
          "java.lang.Double",
          Set.of("toString"),
          "java.util.UUID",
          Set.of("randomUUID", "nameUUIDFromBytes", "<init>"),
          "java.util.regex.Matcher",
          Set.of("results"),
          "java.util.regex.Pattern",
          Set.of("splitAsStream"),
          "java.math.BigDecimal",
          Set.of("sqrt"),
          "java.lang.Math",
          Set.of("fma", "random"),
          "java.time.Instant",
          Set.of("now"),
          "java.time.LocalDate",
          Set.of("now"),
          "java.lang.System",
          Set.of("currentTimeMillis", "nanoTime", "getProperty", "getenv"));

  private static final DescribedPredicate<JavaCall<?>> BANNED_CALL =
      new DescribedPredicate<>("a call that is on the ban list") {
        @Override
        public boolean test(JavaCall<?> call) {
          AccessTarget t = call.getTarget();
          if (t.getName().equals("parallelStream")) return true;
          boolean defaultLocale =
              (t.getName().equals("toLowerCase") || t.getName().equals("toUpperCase"))
                  && t.getOwner().getName().equals("java.lang.String")
                  && t.getFullName().endsWith("()");
          return defaultLocale
              || BANNED.getOrDefault(t.getOwner().getName(), Set.of()).contains(t.getName());
        }
      };

  @ArchTest
  static final ArchRule NO_BANNED_CALLS =
      noClasses()
          .should()
          .callMethodWhere(DescribedPredicate.describe("banned", BANNED_CALL::test))
          .orShould()
          .callConstructorWhere(DescribedPredicate.describe("banned", BANNED_CALL::test));

  @ArchTest
  static final ArchRule NO_BANNED_CLASSES =
      noClasses()
          .should()
          .dependOnClassesThat()
          .haveFullyQualifiedName("java.util.HashMap")
          .orShould()
          .dependOnClassesThat()
          .haveFullyQualifiedName("java.util.HashSet")
          .orShould()
          .dependOnClassesThat()
          .haveFullyQualifiedName("java.util.Random")
          .orShould()
          .dependOnClassesThat()
          .haveFullyQualifiedName("java.security.MessageDigest")
          .orShould()
          .dependOnClassesThat()
          .haveFullyQualifiedName("java.text.Normalizer")
          .orShould()
          .dependOnClassesThat()
          .haveFullyQualifiedName("java.text.Collator")
          .orShould()
          .dependOnClassesThat()
          .haveFullyQualifiedName("java.util.Scanner")
          .orShould()
          .dependOnClassesThat()
          .resideInAnyPackage(
              "java.util.concurrent..",
              "java.io.file..",
              "java.nio.file..",
              "java.net..",
              "java.lang.reflect..",
              "java.sql..",
              "org.springframework..",
              "jakarta..");

  @ArchTest
  static final ArchRule NO_CYCLES =
      slices().matching("org.whinridge.core.(**)").should().beFreeOfCycles();

  @ArchTest static final ArchRule TEXT_KNOWS_NOTHING = knowsOnly("text");
  @ArchTest static final ArchRule PLACES_KNOW_TEXT = knowsOnly("place", "said", "text");
  @ArchTest static final ArchRule SAID_KNOWS_TEXT = knowsOnly("said", "text");
  @ArchTest static final ArchRule VALUES_KNOW_PLACES = knowsOnly("value", "place", "said", "text");

  @ArchTest
  static final ArchRule RULES_KNOW_VALUES = knowsOnly("rules", "value", "place", "said", "text");

  @ArchTest
  static final ArchRule FORMS_AS_DATA_ARE_NEITHER_COMPILED_NOR_FILLED =
      noClasses()
          .that()
          .resideInAPackage("org.whinridge.core.form")
          .should()
          .dependOnClassesThat()
          .resideInAnyPackage("..form.compile..", "..core.visit..");

  private static ArchRule knowsOnly(String part, String... others) {
    List<String> banned = new ArrayList<>();
    for (String p : PARTS)
      if (!p.equals(part) && !List.of(others).contains(p))
        banned.add("org.whinridge.core." + p + "..");
    return noClasses()
        .that()
        .resideInAPackage("org.whinridge.core." + part)
        .should()
        .dependOnClassesThat()
        .resideInAnyPackage(banned.toArray(new String[0]));
  }

  private static List<String> parts() {
    try (Stream<Path> all = Files.list(Path.of("src/main/java/org/whinridge/core"))) {
      return all.filter(Files::isDirectory).map(p -> p.getFileName().toString()).sorted().toList();
    } catch (IOException e) {
      throw new UncheckedIOException(e);
    }
  }

  /** Core has no threads; a lock in it would hide that somebody shares what is not to be shared. */
  @Test
  void nothingIsSynchronized() throws IOException {
    try (Stream<Path> all = Files.walk(Path.of("src/main/java"))) {
      for (Path p : all.filter(x -> x.toString().endsWith(".java")).toList())
        assertThat(Files.readString(p)).as(p.toString()).doesNotContain("synchronized");
    }
  }
}
