/**
 * What the compiler needs to give core the same results in the browser: own methods in place of
 * library ones that it has wrong.
 */
package org.whinridge.engine.teavm;
