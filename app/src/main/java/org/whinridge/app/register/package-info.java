/**
 * The place of the register: table, map, photos and charts of features and visits. Nothing here
 * yet.
 */
package org.whinridge.app.register;
