/**
 * The rules language, OGC CQL2 Text (OGC 21-065), as a line of stations: text → tokens ({@link
 * org.whinridge.core.rules.Lexer}) → tree ({@link org.whinridge.core.rules.Parser}) → checked
 * ({@link org.whinridge.core.rules.Checker}) → made ready to give its value ({@link
 * org.whinridge.core.rules.Evaluator}). {@link org.whinridge.core.rules.Printer} goes the way back.
 *
 * <p>What is done with a tree that was read stands above: {@code rules.saying} says it in English,
 * takes it apart for editing and writes it as CQL2 JSON; {@code rules.domain} asks whether it can
 * hold at all.
 *
 * <p>Start at {@link org.whinridge.core.rules.Rules}. Comes in: text up to 4,000 characters and a
 * {@link org.whinridge.core.rules.Scope} that knows the names. Never: a form, a file, a network,
 * the system's clock.
 */
package org.whinridge.core.rules;
