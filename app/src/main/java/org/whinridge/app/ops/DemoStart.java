package org.whinridge.app.ops;

import java.util.LinkedHashMap;
import java.util.Map;
import org.springframework.boot.ApplicationArguments;
import org.springframework.boot.ApplicationRunner;
import org.springframework.context.annotation.Profile;
import org.springframework.core.annotation.Order;
import org.springframework.stereotype.Component;
import org.whinridge.app.people.People;
import org.whinridge.app.project.Projects;
import org.whinridge.core.access.Role;
import org.whinridge.core.text.Word;

/** Fills an empty store with the Isle of Ostrey and its people. */
@Component
@Profile("demo")
@Order(2)
class DemoStart implements ApplicationRunner {
  private final Projects projects;
  private final DemoProject demo;

  DemoStart(Projects projects, DemoProject demo) {
    this.projects = projects;
    this.demo = demo;
  }

  @Override
  public void run(ApplicationArguments args) throws Exception {
    if (!projects.all().isEmpty()) return;
    Map<String, Role> people = new LinkedHashMap<>();
    for (String name : People.DEMO_ACCOUNTS)
      people.put(name, Word.of(Role.values(), name.replaceAll("[0-9]", "")).orElseThrow());
    demo.make("ostrey", "Isle of Ostrey", people, "coordinator", "inspector1");
  }
}
