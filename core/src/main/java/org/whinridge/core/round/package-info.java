/**
 * Planning and walking a round: which features a shape or a list of tags selects, in what order
 * stops are visited and listed, how they are split over people.
 *
 * <p>Start at {@link org.whinridge.core.round.StopOrder}.
 */
package org.whinridge.core.round;
