/**
 * How layers are drawn: looks saved and tried, the page that makes them, features and tiles drawn
 * by them. What a look means is core's.
 */
@org.springframework.modulith.NamedInterface("look")
package org.whinridge.app.layer.look;
