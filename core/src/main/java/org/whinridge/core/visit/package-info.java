/**
 * One visit being filled. {@link org.whinridge.core.visit.Filling} is what people do to it; {@link
 * org.whinridge.core.visit.Evaluation} keeps the answers true to the form, {@link
 * org.whinridge.core.visit.PointFinder} finds what is open, {@link
 * org.whinridge.core.visit.Prefill} gives first values, {@link org.whinridge.core.visit.SheetView}
 * says what to draw. {@link org.whinridge.core.visit.DryRun} fills a draft for the features of a
 * layer.
 *
 * <p>Comes in: the clock, the person, the position and the look-up layers as arguments. Never: a
 * screen or a database.
 */
package org.whinridge.core.visit;
