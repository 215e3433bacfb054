/**
 * The Isle of Ostrey, an island that does not exist, made by a seeded program: same seed, same
 * bytes. Start at {@link org.whinridge.demo.Ostrey}. Never: anything real, anything of the
 * application.
 */
package org.whinridge.demo;
