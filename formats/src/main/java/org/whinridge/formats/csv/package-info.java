/** Tables as CSV (RFC 4180), in and out; cells never start a formula. */
package org.whinridge.formats.csv;
