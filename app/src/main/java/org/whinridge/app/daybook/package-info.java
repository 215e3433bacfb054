/**
 * The day book: its shell, packs out and hand-ins in. Other modules ask {@link
 * org.whinridge.app.daybook.Visits}.
 */
package org.whinridge.app.daybook;
