package org.whinridge.app.shell;

import java.lang.annotation.ElementType;
import java.lang.annotation.Retention;
import java.lang.annotation.RetentionPolicy;
import java.lang.annotation.Target;

/** An address that needs no right in a project. */
@Target(ElementType.METHOD)
@Retention(RetentionPolicy.RUNTIME)
public @interface OpenTo {
  /** Whom it answers. */
  enum Whom {
    /** Also who is not signed in. */
    EVERYBODY,
    /** Who is signed in. */
    SIGNED_IN,
    /** Who looks after the installation. */
    KEEPER
  }

  /** Whom it answers. */
  Whom value();
}
