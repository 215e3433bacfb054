/**
 * Geodesic measures on WGS 84, coordinate systems and the JSON form of geometry (RFC 7946).
 *
 * <p>Start at {@link org.whinridge.core.place.Geodesy}. Never: planar lengths of degrees.
 */
package org.whinridge.core.place;
