package org.whinridge.formats.xlsform;

/**
 * Something of a form that the other side has no counterpart for, or has one that differs.
 *
 * @param sheet the sheet: survey, choices or settings
 * @param row the row in that sheet, counted from 1 as spreadsheets do
 * @param column the column; "" for the whole row
 * @param found what stands there
 * @param message what became of it
 */
public record Told(String sheet, int row, String column, String found, String message) {
  @Override
  public String toString() {
    return sheet
        + " row "
        + row
        + (column.isEmpty() ? "" : ", " + column)
        + (found.isEmpty() ? "" : " “" + found + "”")
        + ": "
        + message;
  }
}
