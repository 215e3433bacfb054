/**
 * What conditions leave possible. Start at {@link org.whinridge.core.rules.domain.Satisfiability}:
 * can these hold together? What a name may be is its {@link org.whinridge.core.rules.domain.Domain}
 * (the word of constraint programming), which {@link org.whinridge.core.rules.domain.Narrowing}
 * makes smaller by each comparison.
 */
package org.whinridge.core.rules.domain;
