package org.whinridge.app;

import static com.tngtech.archunit.lang.syntax.ArchRuleDefinition.noClasses;
import static com.tngtech.archunit.lang.syntax.ArchRuleDefinition.noMethods;
import static com.tngtech.archunit.library.dependencies.SlicesRuleDefinition.slices;

import com.tngtech.archunit.core.importer.ImportOption;
import com.tngtech.archunit.junit.AnalyzeClasses;
import com.tngtech.archunit.junit.ArchTest;
import com.tngtech.archunit.lang.ArchRule;
import org.springframework.data.jpa.repository.Lock;
import org.whinridge.app.shell.Locks;
import org.whinridge.core.layer.Feature;
import org.whinridge.core.layer.Schema;

/** Ways that must be the only ones. */
@AnalyzeClasses(
    packages = "org.whinridge.app",
    importOptions = ImportOption.DoNotIncludeTests.class)
class ArchitectureTest {
  @ArchTest
  static final ArchRule NO_CYCLES_WITHIN_MODULES_EITHER =
      slices().matching("org.whinridge.app.(**)").should().beFreeOfCycles();

  /** A query that locks gives back what was read before the lock. */
  @ArchTest
  static final ArchRule ROWS_ARE_LOCKED_BY_LOCKS_ALONE =
      noMethods().should().beAnnotatedWith(Lock.class).because("Locks reads under the lock");

  @ArchTest
  static final ArchRule NOBODY_ELSE_LOCKS =
      noClasses()
          .that()
          .doNotBelongToAnyOf(Locks.class)
          .and()
          .haveSimpleNameNotStartingWith("LayerChanges")
          .should()
          .dependOnClassesThat()
          .haveFullyQualifiedName("jakarta.persistence.LockModeType")
          .orShould()
          .dependOnClassesThat()
          .haveFullyQualifiedName("org.hibernate.LockMode");

  /** What goes into a pack comes out of core's Outdoors. */
  @ArchTest
  static final ArchRule PACKS_TAKE_NOTHING_PAST_OUTDOORS =
      noClasses()
          .that()
          .haveSimpleNameStartingWith("Pack")
          .should()
          .callMethod(Feature.class, "json", Schema.class)
          .orShould()
          .callMethod(Feature.class, "values")
          .orShould()
          .callMethod(Feature.class, "value", String.class)
          .orShould()
          .callMethod(Schema.class, "caption", java.util.Map.class)
          .orShould()
          .callMethod(Schema.class, "json")
          .orShould()
          .callMethod(org.whinridge.core.form.Form.class, "json")
          .orShould()
          .callMethod(org.whinridge.core.look.Look.class, "json")
          .orShould()
          .callMethod(Schema.class, "writeValues", java.util.Map.class)
          .because("core.travel.Outdoors decides what travels");

  @ArchTest
  static final ArchRule BACKGROUND_WORK_RUNS_ON_SPRINGS_EXECUTORS =
      noClasses()
          .should()
          .dependOnClassesThat()
          .haveFullyQualifiedName("java.util.concurrent.Executors")
          .orShould()
          .callConstructor(Thread.class, Runnable.class);
}
