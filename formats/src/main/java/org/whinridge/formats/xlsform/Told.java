package org.whinridge.formats.xlsform;

import org.whinridge.core.said.Said;

/**
 * Something of a form that the other side has no counterpart for, or has one that differs.
 *
 * @param sheet the sheet: survey, choices or settings
 * @param row the row in that sheet, counted from 1 as spreadsheets do
 * @param column the column; "" for the whole row
 * @param found what stands there
 * @param message what became of it
 */
public record Told(String sheet, int row, String column, String found, Said message) {
  /** All of it in a line. */
  public Said said() {
    return Said.of(
        "sheetTold.line",
        "sheet",
        sheet,
        "row",
        row,
        "column",
        column.isEmpty() ? "none" : column,
        "found",
        found.isEmpty() ? Said.NONE : Said.text(" “" + found + "”"),
        "message",
        message);
  }
}
