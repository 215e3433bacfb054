/**
 * Forms: drafts, edits and published editions. Other modules ask {@link
 * org.whinridge.app.form.Forms}.
 */
package org.whinridge.app.form;
