/** Who may do what: the roles of a project's people, and what each of them may. */
package org.whinridge.core.access;
