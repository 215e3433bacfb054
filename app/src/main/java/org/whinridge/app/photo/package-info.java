/**
 * Photos on disk by content hash, resumable uploads (tus 1.0), small pictures for the desk. Other
 * modules ask {@link org.whinridge.app.photo.Photos}.
 */
package org.whinridge.app.photo;
