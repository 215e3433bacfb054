/**
 * Filled examples of a form with what is expected of them. Start at {@link
 * org.whinridge.core.trial.Trial}: it does in a visit opened anew what a person did when it was
 * kept; {@link org.whinridge.core.trial.Outcome} is what came of that, {@link
 * org.whinridge.core.trial.Difference} what is other than expected.
 */
package org.whinridge.core.trial;
