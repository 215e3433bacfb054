/**
 * What core tells people, as keys of the catalogue and what is put into their texts; core has no
 * words of its own.
 */
package org.whinridge.core.said;
