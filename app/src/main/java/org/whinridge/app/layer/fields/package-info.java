/** The page of a layer's fields, and what a change of them does to the features. */
package org.whinridge.app.layer.fields;
