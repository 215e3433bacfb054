/**
 * All projects of a person, one project at a glance, and what becomes of projects as wholes: copies
 * and their end. It reads across the tables of all modules and is read by none.
 */
package org.whinridge.app.overview;
