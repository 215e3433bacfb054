/**
 * Layers, their features, writing to them, and the ledger of every change. Other modules ask {@link
 * org.whinridge.app.layer.Layers}; one feature is changed by {@link
 * org.whinridge.app.layer.Layers#write}, many at once by {@link
 * org.whinridge.app.layer.LayerChanges}. The pages of values, fields and looks stand in packages of
 * their own above this one. Rules of the job are core's.
 */
package org.whinridge.app.layer;
