package org.whinridge.app.shell;

import java.lang.annotation.ElementType;
import java.lang.annotation.Retention;
import java.lang.annotation.RetentionPolicy;
import java.lang.annotation.Target;
import org.springframework.core.annotation.AliasFor;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestMethod;

/** The end point of resumable uploads: the address below which they are, with and without an id. */
@Target(ElementType.METHOD)
@Retention(RetentionPolicy.RUNTIME)
@RequestMapping(
    method = {
      RequestMethod.POST,
      RequestMethod.PATCH,
      RequestMethod.HEAD,
      RequestMethod.DELETE,
      RequestMethod.OPTIONS
    })
public @interface TusRequests {
  /** The address, and the same with {@code /{id}}. */
  @AliasFor(annotation = RequestMapping.class, attribute = "path")
  String[] value();
}
