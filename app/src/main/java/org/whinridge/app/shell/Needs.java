package org.whinridge.app.shell;

import java.lang.annotation.ElementType;
import java.lang.annotation.Retention;
import java.lang.annotation.RetentionPolicy;
import java.lang.annotation.Target;
import org.whinridge.core.access.Right;

/**
 * The right that an address needs: in the project that it names, or in any where it names none. An
 * address with neither this nor {@link OpenTo} answers nobody.
 */
@Target(ElementType.METHOD)
@Retention(RetentionPolicy.RUNTIME)
public @interface Needs {
  /** The right. */
  Right value();
}
