/** Accounts, roles and sign-in. Other modules ask {@link org.whinridge.app.people.People}. */
package org.whinridge.app.people;
