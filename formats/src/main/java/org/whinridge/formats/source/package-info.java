/**
 * What every reader gives: a {@link org.whinridge.formats.source.Source} with its fields and its
 * {@link org.whinridge.formats.source.RawFeature}s, what the file says of its fields ({@link
 * org.whinridge.formats.source.Described}), where a table in it begins ({@link
 * org.whinridge.formats.source.TableHead}) and what becomes of heights and measures ({@link
 * org.whinridge.formats.source.ZAndM}).
 */
package org.whinridge.formats.source;
