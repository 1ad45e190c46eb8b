package org.ysthmos.app;

import static com.tngtech.archunit.lang.syntax.ArchRuleDefinition.classes;
import static com.tngtech.archunit.lang.syntax.ArchRuleDefinition.noClasses;
import static com.tngtech.archunit.library.dependencies.SlicesRuleDefinition.slices;

import com.tngtech.archunit.core.importer.ImportOption;
import com.tngtech.archunit.junit.AnalyzeClasses;
import com.tngtech.archunit.junit.ArchTest;
import com.tngtech.archunit.lang.ArchRule;

@AnalyzeClasses(packages = "org.ysthmos", importOptions = ImportOption.DoNotIncludeTests.class)
class ArchitectureTest {

  @ArchTest
  static final ArchRule CORE_STANDS_ALONE =
      classes()
          .that()
          .resideInAPackage("org.ysthmos.core..")
          .should()
          .onlyDependOnClassesThat()
          .resideInAnyPackage(
              "org.ysthmos.core..",
              "java.lang..",
              "java.math..",
              "java.net",
              "java.nio",
              "java.nio.charset..",
              "java.security..",
              "java.text..",
              "java.time..",
              "java.util..",
              "org.jspecify..",
              "com.fasterxml.jackson..",
              "org.snakeyaml.engine..",
              "com.google.re2j..",
              "net.fortuna.ical4j..",
              "org.jsoup..",
              "org.apache.commons.csv..",
              "java.io")
          .because("the computation has no interface, database or network code");

  @ArchTest
  static final ArchRule CORE_HAS_NO_CLOCK =
      noClasses()
          .that()
          .resideInAPackage("org.ysthmos.core..")
          .should()
          .callMethod(java.time.Instant.class, "now")
          .orShould()
          .callMethod(java.time.LocalDate.class, "now")
          .orShould()
          .callMethod(java.lang.System.class, "currentTimeMillis")
          .because("a decision is the same whenever it is made");

  @ArchTest
  static final ArchRule ADAPTERS_KNOW_ONLY_CORE =
      noClasses()
          .that()
          .resideInAPackage("org.ysthmos.adapters..")
          .should()
          .dependOnClassesThat()
          .resideInAnyPackage(
              "org.ysthmos.app..", "org.ysthmos.standins..", "org.springframework..")
          .because("dependencies point inwards: app, adapters, core");

  @ArchTest
  static final ArchRule NOBODY_KNOWS_A_STAND_IN =
      noClasses()
          .that()
          .resideOutsideOfPackage("org.ysthmos.standins..")
          .should()
          .dependOnClassesThat()
          .resideInAPackage("org.ysthmos.standins..")
          .because("stand-ins are reached only over the network");

  @ArchTest
  static final ArchRule STAND_INS_KNOW_NOTHING_OF_OURS =
      noClasses()
          .that()
          .resideInAPackage("org.ysthmos.standins..")
          .should()
          .dependOnClassesThat()
          .resideInAnyPackage("org.ysthmos.core..", "org.ysthmos.adapters..", "org.ysthmos.app..")
          .because("a stand-in behaves as a system of its own would");

  @ArchTest
  static final ArchRule CORE_FEATURES_HAVE_NO_CYCLES =
      slices()
          .matching("org.ysthmos.core.(*)..")
          .should()
          .beFreeOfCycles()
          .because("a reader takes in one room at a time");

  @ArchTest
  static final ArchRule APP_FEATURES_HAVE_NO_CYCLES =
      slices()
          .matching("org.ysthmos.app.(*)..")
          .should()
          .beFreeOfCycles()
          .because("a reader takes in one room at a time");

  @ArchTest
  static final ArchRule ONE_CLOCK =
      noClasses()
          .that()
          .resideInAnyPackage("org.ysthmos.app..", "org.ysthmos.adapters..")
          .and()
          .doNotHaveSimpleName("AppClock")
          .should()
          .callMethod(java.time.Instant.class, "now")
          .because("tests set the time");
}
