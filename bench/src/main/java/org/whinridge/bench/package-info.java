/**
 * Benchmarks, each beside a bare baseline in the same run; the ratio is what counts. Never:
 * anything that another module needs.
 */
package org.whinridge.bench;
