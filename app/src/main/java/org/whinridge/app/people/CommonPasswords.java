package org.whinridge.app.people;

import java.util.Set;
import me.gosimple.nbvcxz.resources.ConfigurationBuilder;
import me.gosimple.nbvcxz.resources.Dictionary;
import org.springframework.stereotype.Component;

/** The passwords that many people use, of the list that the library of password strength ships. */
@Component
class CommonPasswords {
  private Set<String> all = Set.of();

  /** Whether it is one of them, in lower case. The list is read when it is first asked. */
  synchronized boolean has(String lower) {
    if (all.isEmpty())
      all =
          ConfigurationBuilder.getDefaultDictionaries().stream()
              .filter(d -> d.getDictionaryName().equals("passwords"))
              .map(Dictionary::getDictonary)
              .findFirst()
              .orElseThrow()
              .keySet();
    return all.contains(lower);
  }
}
