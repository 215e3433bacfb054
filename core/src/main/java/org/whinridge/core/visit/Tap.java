package org.whinridge.core.visit;

import java.util.ArrayList;
import java.util.List;
import org.whinridge.core.value.Value;
import org.whinridge.core.value.ValueJson;
import org.whinridge.core.value.ValueType;

/**
 * What a tap on one of a question's codes means. It never empties a single choice, and the first
 * tap on a code that is prefilled confirms it; taking an answer away is an act of its own.
 *
 * @param value the new answer, for {@link Deed#SET}
 */
record Tap(Deed deed, Value value) {
  enum Deed {
    /** The prefilled answer is so. */
    CONFIRM,
    /** It is chosen already. */
    NOTHING,
    /** The answer becomes another. */
    SET
  }

  /**
   * @param now the answer as it is
   * @param waits whether it is prefilled and nobody has confirmed it
   */
  static Tap on(String code, ValueType valueType, Value now, boolean waits) {
    Value one = ValueJson.readText(code, valueType == ValueType.LIST ? ValueType.TEXT : valueType);
    List<Value> chosen = now instanceof Value.Many m ? m.values() : List.of(now);
    boolean isChosen = chosen.stream().anyMatch(v -> v.plain().equals(one.plain()));
    if (isChosen && waits) return new Tap(Deed.CONFIRM, now);
    if (valueType != ValueType.LIST)
      return isChosen ? new Tap(Deed.NOTHING, now) : new Tap(Deed.SET, one);
    List<Value> all = new ArrayList<>(chosen);
    all.removeIf(v -> v.isEmpty() || v.plain().equals(one.plain()));
    if (!isChosen) all.add(one);
    return new Tap(Deed.SET, all.isEmpty() ? Value.EMPTY : Value.many(all));
  }
}
