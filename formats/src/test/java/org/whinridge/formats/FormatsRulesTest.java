package org.whinridge.formats;

import static com.tngtech.archunit.lang.syntax.ArchRuleDefinition.noClasses;
import static com.tngtech.archunit.library.dependencies.SlicesRuleDefinition.slices;

import com.tngtech.archunit.core.importer.ImportOption;
import com.tngtech.archunit.junit.AnalyzeClasses;
import com.tngtech.archunit.junit.ArchTest;
import com.tngtech.archunit.lang.ArchRule;

/** The walls between the formats. */
@AnalyzeClasses(
    packages = "org.whinridge.formats",
    importOptions = ImportOption.DoNotIncludeTests.class)
class FormatsRulesTest {
  @ArchTest
  static final ArchRule NO_CYCLES =
      slices().matching("org.whinridge.formats.(**)").should().beFreeOfCycles();

  @ArchTest
  static final ArchRule WHAT_FORMATS_SHARE_KNOWS_NO_FORMAT =
      noClasses()
          .that()
          .resideInAnyPackage("..formats.file..", "..formats.source..", "..formats.out..")
          .should()
          .dependOnClassesThat()
          .resideInAnyPackage(
              "org.whinridge.formats",
              "..formats.csv..",
              "..formats.xlsx..",
              "..formats.geojson..",
              "..formats.geopackage..",
              "..formats.shapefile..",
              "..formats.kml..",
              "..formats.gpx..",
              "..formats.photos..",
              "..formats.xlsform..");

  @ArchTest
  static final ArchRule NO_FRAMEWORK =
      noClasses()
          .should()
          .dependOnClassesThat()
          .resideInAnyPackage("org.springframework..", "jakarta.persistence..", "org.hibernate..");
}
