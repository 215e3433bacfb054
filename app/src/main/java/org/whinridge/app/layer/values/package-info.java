/** The page of a layer's values: profile, value tidy, code lists out of values, splits. */
package org.whinridge.app.layer.values;
