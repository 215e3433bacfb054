package org.whinridge.app.people;

import java.util.Optional;
import java.util.Set;
import me.gosimple.nbvcxz.Nbvcxz;
import me.gosimple.nbvcxz.resources.ConfigurationBuilder;
import me.gosimple.nbvcxz.resources.Dictionary;
import org.springframework.stereotype.Component;
import org.whinridge.core.access.PasswordStrength;
import org.whinridge.core.text.Fold;

/** The passwords that many people use, of the list that the library of password strength ships. */
@Component
class CommonPasswords {
  private Set<String> all = Set.of();

  /** Characters whose strength is estimated: whatever follows makes nothing weaker, and costs. */
  private static final int LOOKED_AT = 40;

  private final Nbvcxz guessing = new Nbvcxz();

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

  /**
   * How well a password keeps.
   *
   * @param name of whose it is, which is guessed first
   * @return the id of the word; "" for no password
   */
  String strength(String password, Optional<String> name) {
    String some = password.substring(0, Math.min(password.length(), LOOKED_AT));
    if (some.isEmpty()) return "";
    double guesses = Math.log10(guessing.estimate(some).getGuesses().doubleValue());
    boolean named =
        name.filter(n -> !n.isBlank() && Fold.lower(some).contains(Fold.lower(n.strip())))
            .isPresent();
    return (named || has(Fold.lower(some)) ? PasswordStrength.WEAK : PasswordStrength.of(guesses))
        .id();
  }
}
