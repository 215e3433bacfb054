/**
 * Forms: data, compiler, filling.
 *
 * <ul>
 *   <li>Data: {@link org.whinridge.core.form.Form}, {@link org.whinridge.core.form.Section}, {@link
 *       org.whinridge.core.form.Question}; changed by {@link org.whinridge.core.form.FormEdit} and
 *       {@link org.whinridge.core.form.FormRename}.
 *   <li>Compiler: {@link org.whinridge.core.form.FormCompiler} reads every rule, checks names and
 *       wiring, sorts the questions; {@link org.whinridge.core.form.NeverHolds} finds what can
 *       never be asked or met.
 *   <li>Filling: {@link org.whinridge.core.form.Filling} is what people do to a visit; {@link
 *       org.whinridge.core.form.Evaluation} keeps the answers true to the form, {@link
 *       org.whinridge.core.form.PointFinder} finds what is open, {@link
 *       org.whinridge.core.form.Prefill} gives first values, {@link
 *       org.whinridge.core.form.SheetView} says what to draw.
 *   <li>{@link org.whinridge.core.form.DryRun} runs a draft over existing features, {@link
 *       org.whinridge.core.form.RuleView} shows one rule to its author.
 * </ul>
 *
 * <p>Comes in: the clock, the person, the position and the look-up layers as arguments. Never: a
 * screen or a database.
 */
package org.whinridge.core.form;
