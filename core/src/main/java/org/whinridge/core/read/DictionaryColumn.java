package org.whinridge.core.read;

import org.whinridge.core.value.Value;

/**
 * Values of any kind by their number in a {@link Dictionary} of the distinct ones; number 0 is
 * empty.
 */
public final class DictionaryColumn implements Column {
  private final Pages<int[]> numbers;
  private final Dictionary dictionary;
  private int distinct;

  DictionaryColumn() {
    this(Pages.ofInts(), new Dictionary(), 1);
  }

  DictionaryColumn(Pages<int[]> numbers, Dictionary dictionary, int distinct) {
    this.numbers = numbers;
    this.dictionary = dictionary;
    this.distinct = distinct;
  }

  DictionaryColumn newer() {
    return new DictionaryColumn(numbers.newer(), dictionary, distinct);
  }

  /** The number of a row's value among the distinct ones. */
  public int number(int row) {
    return numbers.at(row)[Pages.in(row)];
  }

  Pages<int[]> numbers() {
    return numbers;
  }

  /** How many distinct values were ever here, the empty one among them; some rows may have left. */
  public int distinct() {
    return distinct;
  }

  /** The distinct value of a number below {@link #distinct}. */
  public Value distinct(int number) {
    return dictionary.value(number);
  }

  @Override
  public Value value(int row) {
    return dictionary.value(number(row));
  }

  void set(int row, Value v) {
    int n = dictionary.number(v);
    distinct = Math.max(distinct, n + 1);
    numbers.own(row)[Pages.in(row)] = n;
  }

  void end(int rows) {
    numbers.end(rows);
    distinct = Math.max(distinct, dictionary.size());
  }

  void rest() {
    dictionary.rest();
  }

  Dictionary dictionary() {
    return dictionary;
  }

  @Override
  public long bytes(int rows) {
    return 4 * numbers.places(rows) + dictionary.bytes();
  }
}
