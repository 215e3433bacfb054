/**
 * Bringing files in: uploads kept aside, looked through in the background, reported, then imported
 * as new layers, as an update of a layer by key, or as past visits; whole or not at all. Files are
 * read by the formats, looked at by core's survey, written by the layer module.
 */
package org.whinridge.app.bringin;
