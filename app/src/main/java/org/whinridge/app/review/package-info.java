/** The review desk: what a visit would change, accepting it or sending it back. */
package org.whinridge.app.review;
