/**
 * Planning and walking a round: which features a shape selects and in what order stops are listed.
 *
 * <p>Start at {@link org.whinridge.core.round.StopOrder}.
 */
package org.whinridge.core.round;
