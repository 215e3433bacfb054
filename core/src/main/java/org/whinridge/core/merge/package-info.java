/**
 * Three-way merging of a visit into a feature, field by field (base, layer now, mine).
 *
 * <p>Start at {@link org.whinridge.core.merge.Merge}.
 */
package org.whinridge.core.merge;
