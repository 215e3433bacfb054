package org.whinridge.app;

import static com.tngtech.archunit.lang.syntax.ArchRuleDefinition.classes;
import static com.tngtech.archunit.lang.syntax.ArchRuleDefinition.noClasses;

import com.tngtech.archunit.core.importer.ClassFileImporter;
import com.tngtech.archunit.core.importer.ImportOption;
import org.junit.jupiter.api.Test;
import org.springframework.modulith.core.ApplicationModules;

/** The walls between the application's modules. */
class ModulesTest {
  @Test
  void modulesReachEachOtherOnlyThroughTheirTopPackageAndWithoutCircles() {
    ApplicationModules.of(WhinridgeApplication.class).verify();
  }

  @Test
  void controllersTranslateAndKnowNoRepository() {
    var all =
        new ClassFileImporter()
            .withImportOption(new ImportOption.DoNotIncludeTests())
            .importPackages("org.whinridge.app");
    noClasses()
        .that()
        .haveSimpleNameEndingWith("Controller")
        .or()
        .haveSimpleNameEndingWith("Api")
        .should()
        .dependOnClassesThat()
        .haveSimpleNameEndingWith("Repository")
        .orShould()
        .dependOnClassesThat()
        .areAnnotatedWith(jakarta.persistence.Entity.class)
        .check(all);
    classes()
        .that()
        .areAnnotatedWith(jakarta.persistence.Entity.class)
        .should()
        .bePackagePrivate()
        .check(all);
    noClasses()
        .that()
        .resideInAPackage("org.whinridge.app..")
        .should()
        .dependOnClassesThat()
        .resideInAnyPackage("com.fasterxml.jackson.databind..")
        .check(all);
  }
}
