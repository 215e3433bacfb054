package org.whinridge.app.shell;

import java.lang.annotation.ElementType;
import java.lang.annotation.Retention;
import java.lang.annotation.RetentionPolicy;
import java.lang.annotation.Target;
import org.springframework.dao.ConcurrencyFailureException;
import org.springframework.dao.DataIntegrityViolationException;
import org.springframework.resilience.annotation.Retryable;
import org.springframework.transaction.annotation.Transactional;

/**
 * An act that people ask for, in a transaction of its own: when a lock is not had in time, or the
 * same row arrives twice at once, it is tried once more from its beginning; {@link Errors} tells
 * what comes of it then. For the outermost method only.
 */
@Target(ElementType.METHOD)
@Retention(RetentionPolicy.RUNTIME)
@Transactional
@Retryable(
    maxRetries = 1,
    delay = 50,
    includes = {ConcurrencyFailureException.class, DataIntegrityViolationException.class})
public @interface Writing {}
