package org.whinridge.core;

import static com.tngtech.archunit.lang.syntax.ArchRuleDefinition.noClasses;

import com.tngtech.archunit.base.DescribedPredicate;
import com.tngtech.archunit.core.domain.AccessTarget;
import com.tngtech.archunit.core.domain.JavaCall;
import com.tngtech.archunit.core.importer.ImportOption;
import com.tngtech.archunit.junit.AnalyzeClasses;
import com.tngtech.archunit.junit.ArchTest;
import com.tngtech.archunit.lang.ArchRule;
import java.util.Map;
import java.util.Set;

/**
 * What core may never use, since it must give the same results compiled for the browser and must be
 * replayable.
 */
@AnalyzeClasses(
    packages = "org.whinridge.core",
    importOptions = ImportOption.DoNotIncludeTests.class)
class CoreRulesTest {
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
  static final ArchRule RULES_KNOW_NO_FORMS =
      noClasses()
          .that()
          .resideInAPackage("..core.rules..")
          .should()
          .dependOnClassesThat()
          .resideInAnyPackage("..core.form..", "..core.layer..", "..core.prefill..");

  @ArchTest
  static final ArchRule VALUES_KNOW_NO_RULES =
      noClasses()
          .that()
          .resideInAPackage("..core.value..")
          .should()
          .dependOnClassesThat()
          .resideInAnyPackage("..core.rules..", "..core.form..", "..core.layer..");
}
