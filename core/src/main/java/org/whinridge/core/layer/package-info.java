/**
 * Layers as data: schema, fields, code lists and features.
 *
 * <p>Start at {@link org.whinridge.core.layer.Schema} and {@link org.whinridge.core.layer.Feature}.
 * Geometry is WGS 84, x is longitude, y is latitude, both in degrees. Never: how a layer is stored
 * or drawn.
 */
package org.whinridge.core.layer;
