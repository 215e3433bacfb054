/**
 * Numbers and letters as text, the same on every engine and in every locale: {@link
 * org.whinridge.core.text.Numbers}, {@link org.whinridge.core.text.Fold} and {@link
 * org.whinridge.core.text.Composed} for accents and case, {@link
 * org.whinridge.core.text.EditDistance}, {@link org.whinridge.core.text.Blanks}. The lowest
 * package: it knows no other.
 */
package org.whinridge.core.text;
