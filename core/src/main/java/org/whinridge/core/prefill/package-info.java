/**
 * First values: the chain of sources of a question ({@link org.whinridge.core.prefill.Source}),
 * when it is asked again ({@link org.whinridge.core.prefill.Refresh}), and the look-up by place:
 * how features are found ({@link org.whinridge.core.prefill.LookUp}), the index that finds them
 * ({@link org.whinridge.core.prefill.PlaceIndex}), what came of it ({@link
 * org.whinridge.core.prefill.LookupResult}) and what a question takes from it ({@link
 * org.whinridge.core.prefill.LookUpValue}).
 *
 * <p>Comes in: features and a place. Never: a form; who walks the chain is {@code
 * org.whinridge.core.visit.Prefill}.
 */
package org.whinridge.core.prefill;
