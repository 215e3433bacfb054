/**
 * The field engine: core compiled to one ES module. Only the exported border lives here, in {@link
 * org.whinridge.engine.FieldEngine}; JSON strings for records and forms, bytes for photos. Never: a
 * rule of the job.
 */
package org.whinridge.engine;
