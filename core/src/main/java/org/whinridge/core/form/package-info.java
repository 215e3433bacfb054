/**
 * The form as data: {@link org.whinridge.core.form.Form}, {@link org.whinridge.core.form.Section},
 * {@link org.whinridge.core.form.Question}, with their JSON; changed by {@link
 * org.whinridge.core.form.edit.FormEdit} and {@link org.whinridge.core.form.edit.FormRename}.
 * {@code form.compile} makes it executable, {@code visit} has it filled.
 */
package org.whinridge.core.form;
