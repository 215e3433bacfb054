/**
 * Rules in other words: as an English sentence ({@link org.whinridge.core.rules.saying.Sentence}),
 * in parts that people edit ({@link org.whinridge.core.rules.saying.SentenceParts}), as CQL2 JSON
 * and back ({@link org.whinridge.core.rules.saying.CqlJson}).
 */
package org.whinridge.core.rules.saying;
