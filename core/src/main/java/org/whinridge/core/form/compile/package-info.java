/**
 * From a form to an executable form. Start at {@link org.whinridge.core.form.compile.FormCompiler}:
 * it reads every rule against the names that may be used where it stands ({@link
 * org.whinridge.core.form.compile.FormScope}, {@link org.whinridge.core.form.compile.LookUpScope}),
 * checks what questions write to ({@link org.whinridge.core.form.compile.Wiring}), sorts the
 * questions, and has {@link org.whinridge.core.form.compile.NeverHolds} find what can never be
 * asked or met. {@link org.whinridge.core.form.compile.RulePlace} shows one rule to its author.
 */
package org.whinridge.core.form.compile;
