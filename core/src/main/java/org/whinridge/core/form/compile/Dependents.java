package org.whinridge.core.form.compile;

import java.util.ArrayList;
import java.util.List;
import java.util.Set;

/**
 * Who must be evaluated again when something changes: by the bare name of a question, by a list's
 * column, by the rows of a list, by the place of the visit. Values and points (checks, offered
 * codes) are kept apart, since points never change a value.
 */
public final class Dependents {
  private final int[][] values;
  private final int[][] points;
  private final int[][] columnValues;
  private final int[][] columnPoints;
  private final int[][] rowValues;
  private final int[][] rowPoints;
  private final int[] placeValues;
  private final int[] placePoints;

  Dependents(ExecutableForm form) {
    int n = form.size();
    int lists = form.lists().size();
    List<List<Integer>> bare = lists(n);
    List<List<Integer>> barePoints = lists(n);
    List<List<Integer>> column = lists(n);
    List<List<Integer>> columnPoint = lists(n);
    List<List<Integer>> row = lists(lists);
    List<List<Integer>> rowPoint = lists(lists);
    List<List<Integer>> place = lists(1);
    List<List<Integer>> placePoint = lists(1);
    for (int i = 0; i < n; i++) {
      sort(form, i, form.at(i).reads(), bare, column, row, place);
      sort(form, i, form.at(i).pointsRead(), barePoints, columnPoint, rowPoint, placePoint);
    }
    values = arrays(bare);
    points = arrays(barePoints);
    columnValues = arrays(column);
    columnPoints = arrays(columnPoint);
    rowValues = arrays(row);
    rowPoints = arrays(rowPoint);
    placeValues = arrays(place)[0];
    placePoints = arrays(placePoint)[0];
  }

  private static void sort(
      ExecutableForm form,
      int reader,
      Set<String> names,
      List<List<Integer>> bare,
      List<List<Integer>> column,
      List<List<Integer>> rows,
      List<List<Integer>> place) {
    for (String name : names) {
      int i = form.indexOf(name);
      if (i >= 0) {
        bare.get(i).add(reader);
        continue;
      }
      if (name.equals("place")) place.get(0).add(reader);
      int l = form.listOf(name);
      if (l >= 0) rows.get(l).add(reader);
      int dot = name.indexOf('.');
      if (dot < 0 || form.listOf(name.substring(0, dot)) < 0) continue;
      int q = form.indexOf(name.substring(dot + 1));
      if (q >= 0) column.get(q).add(reader);
    }
  }

  private static List<List<Integer>> lists(int n) {
    List<List<Integer>> out = new ArrayList<>();
    for (int i = 0; i < n; i++) out.add(new ArrayList<>());
    return out;
  }

  private static int[][] arrays(List<List<Integer>> lists) {
    int[][] out = new int[lists.size()][];
    for (int i = 0; i < out.length; i++)
      out[i] = lists.get(i).stream().mapToInt(Integer::intValue).toArray();
    return out;
  }

  /** Whose value reads question {@code i} by its bare name. */
  public int[] values(int i) {
    return values[i];
  }

  /** Whose points read question {@code i} by its bare name. */
  public int[] points(int i) {
    return points[i];
  }

  /** Whose value reads the column of question {@code i} over all rows. */
  public int[] columnValues(int i) {
    return columnValues[i];
  }

  /** Whose points read the column of question {@code i} over all rows. */
  public int[] columnPoints(int i) {
    return columnPoints[i];
  }

  /** Whose value reads the rows of a list themselves, such as count(defects). */
  public int[] rowValues(int list) {
    return rowValues[list];
  }

  /** Whose points read the rows of a list themselves. */
  public int[] rowPoints(int list) {
    return rowPoints[list];
  }

  /** Whose value reads the visit's place. */
  public int[] placeValues() {
    return placeValues;
  }

  /** Whose points read the visit's place. */
  public int[] placePoints() {
    return placePoints;
  }
}
