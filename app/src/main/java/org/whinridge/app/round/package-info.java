/** Rounds and their stops. Other modules ask {@link org.whinridge.app.round.Rounds}. */
package org.whinridge.app.round;
