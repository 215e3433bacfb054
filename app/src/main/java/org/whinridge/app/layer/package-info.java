/**
 * Layers, their features and the ledger of every change; bringing files in. Other modules ask
 * {@link org.whinridge.app.layer.Layers}. Rules of the job are core's.
 */
package org.whinridge.app.layer;
