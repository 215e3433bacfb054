/**
 * Forms: the draft's data ({@link org.whinridge.core.form.Form}), its compiler ({@link
 * org.whinridge.core.form.FormCompiler}) and the filling of one visit ({@link
 * org.whinridge.core.form.Filling}), which decides what is asked, what it holds, what is open and
 * what will be written.
 *
 * <p>Comes in: the clock, the person and the position as arguments. Never: a screen or a database.
 */
package org.whinridge.core.form;
