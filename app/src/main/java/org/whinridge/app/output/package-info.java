/** Exports of layers in open formats. */
package org.whinridge.app.output;
