/**
 * The reading side of a layer in memory: one column per field, compact geometries, indexes by
 * place, and filters that run over columns. Start at {@link org.whinridge.core.read.LayerColumns};
 * as bytes: {@link org.whinridge.core.read.ColumnsImage}.
 *
 * <p>Comes in: features, one after the other. Goes out: rows, values, features. What was made never
 * changes; an edit makes the next state. Never: the store; whoever builds a read model keys it by
 * the layer's revision.
 */
package org.whinridge.core.read;
