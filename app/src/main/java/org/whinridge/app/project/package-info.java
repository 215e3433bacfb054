/**
 * Projects: a body of work with its coordinate system. Other modules ask {@link
 * org.whinridge.app.project.Projects}.
 */
package org.whinridge.app.project;
