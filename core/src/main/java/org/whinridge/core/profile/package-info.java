/**
 * What a column of raw values looks like: the guessed type with its evidence.
 *
 * <p>Start at {@link org.whinridge.core.profile.TypeGuess}.
 */
package org.whinridge.core.profile;
