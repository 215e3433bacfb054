package org.whinridge.app.shell;

import java.util.List;
import java.util.function.IntFunction;

/**
 * One page of a list, for templates.
 *
 * @param page counts from 1
 * @param pages how many there are, at least one
 * @param count how many entries the whole list has
 */
public record Paged<T>(List<T> entries, int page, int pages, long count) {
  /** Entries of a page of every list. */
  public static final int SIZE = 50;

  /** The page asked for, or the last one when there are fewer. */
  public static <T> Paged<T> of(long count, int asked, IntFunction<List<T>> read) {
    int pages = (int) Math.max(1, (count + SIZE - 1) / SIZE);
    int page = Math.max(1, Math.min(pages, asked));
    return new Paged<>(count == 0 ? List.of() : read.apply(page - 1), page, pages, count);
  }

  /** Whether nothing is in the list. */
  public boolean isEmpty() {
    return count == 0;
  }
}
