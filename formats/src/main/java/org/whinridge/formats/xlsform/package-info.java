/**
 * XLSForm workbooks in and out: the published open convention for forms in a spreadsheet, which
 * many programs read and write. It is the one foreign form format that Whinridge knows.
 *
 * <p>Start at {@link org.whinridge.formats.xlsform.XlsFormReader} and {@link
 * org.whinridge.formats.xlsform.XlsFormWriter}. What has no counterpart is told by sheet, row and
 * column ({@link org.whinridge.formats.xlsform.Told}), never dropped in silence. Expressions are
 * translated both ways: {@link org.whinridge.formats.xlsform.XPathToCql}, {@link
 * org.whinridge.formats.xlsform.CqlToXPath}. Source: the XLSForm convention's public description,
 * from memory.
 */
package org.whinridge.formats.xlsform;
