/** Tables as XLSX (ECMA-376), in and out; cells never start a formula. */
package org.whinridge.formats.xlsx;
