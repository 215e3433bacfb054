/**
 * Changes of a form's draft: edits as a screen sends them, each giving a new form or a refusal in
 * words; and what an edit changed, so that it can be undone and done again.
 */
package org.whinridge.core.form.edit;
