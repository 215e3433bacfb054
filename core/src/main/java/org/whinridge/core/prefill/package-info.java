/**
 * First values: the chain of sources of a question and the look-up by place over an index.
 *
 * <p>Start at {@link org.whinridge.core.prefill.Source} and {@link
 * org.whinridge.core.prefill.PlaceIndex}.
 */
package org.whinridge.core.prefill;
