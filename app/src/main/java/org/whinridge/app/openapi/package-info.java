/** The place of the open API (OGC API – Features). Nothing here yet. */
package org.whinridge.app.openapi;
