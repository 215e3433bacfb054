/**
 * Forms as lines of text: a question, a section or a block is typed in one line, read back as one,
 * and a whole form is a text of such lines. The grammar is in docs/form-text.md.
 */
package org.whinridge.core.form.line;
