/**
 * The rules language, OGC CQL2 Text (OGC 21-065), as a line of stations: text → tokens ({@link
 * org.whinridge.core.rules.Lexer}) → tree ({@link org.whinridge.core.rules.Parser}) → checked
 * ({@link org.whinridge.core.rules.Checker}) → steps that give its value ({@link
 * org.whinridge.core.rules.Steps}), or said in English ({@link org.whinridge.core.rules.Sentence}),
 * taken apart for editing ({@link org.whinridge.core.rules.SentenceParts}), written as CQL2 JSON
 * ({@link org.whinridge.core.rules.CqlJson}), or asked whether it can hold at all ({@link
 * org.whinridge.core.rules.Possible}).
 *
 * <p>Start at {@link org.whinridge.core.rules.Rules}. Comes in: text up to 4,000 characters and a
 * {@link org.whinridge.core.rules.Scope} that knows the names. Never: a form, a file, a network,
 * the system's clock.
 */
package org.whinridge.core.rules;
