package org.whinridge.engine;

import org.whinridge.core.rules.Rule;
import org.whinridge.core.rules.RuleGenerator;
import org.whinridge.core.rules.Rules;
import org.whinridge.core.rules.Scope;
import org.whinridge.core.rules.Situation;
import org.whinridge.core.rules.saying.CqlJson;
import org.whinridge.core.rules.saying.Sentence;
import org.whinridge.core.value.ValueJson;
import org.whinridge.core.value.ValueType;

/**
 * Rules of {@link RuleGenerator}. Each is printed and read again, which must give the same text and
 * the same value; text and value go into a digest, so that both engines can be compared over
 * thousands of trees by one number.
 */
final class RandomRules {
  private int digest = 0x811c9dc5;

  /** The digest over that many rules; "broken: …" with the first rule that did not come back. */
  static String run(long seed, int count, Scope scope, Situation situation) {
    RuleGenerator rules = new RuleGenerator(seed);
    RandomRules r = new RandomRules();
    for (int i = 0; i < count; i++) {
      String text = rules.condition(4);
      Rule once = Rules.formula(text, scope, ValueType.EMPTY).rule().orElse(null);
      if (once == null) return "broken: " + text;
      Rule twice = Rules.formula(once.canonical(), scope, ValueType.EMPTY).rule().orElse(null);
      String value = ValueJson.write(once.evaluate(situation)).toString();
      if (twice == null
          || !twice.canonical().equals(once.canonical())
          || !CqlJson.write(twice).equals(CqlJson.write(once))
          || !ValueJson.write(twice.evaluate(situation)).toString().equals(value))
        return "broken: " + text;
      r.add(once.canonical());
      r.add(value);
      r.add(Sentence.of(once, scope).toString());
    }
    return Integer.toHexString(r.digest);
  }

  /** FNV-1a over the characters. */
  private void add(String s) {
    for (int i = 0; i < s.length(); i++) digest = (digest ^ s.charAt(i)) * 0x01000193;
  }
}
