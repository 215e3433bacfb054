package org.whinridge.app.shell;

import jakarta.servlet.http.HttpServletRequest;
import java.util.List;
import java.util.Map;
import org.apache.catalina.connector.ClientAbortException;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.http.HttpStatus;
import org.springframework.http.MediaType;
import org.springframework.http.ResponseEntity;
import org.springframework.http.converter.HttpMessageNotReadableException;
import org.springframework.security.access.AccessDeniedException;
import org.springframework.validation.BindException;
import org.springframework.validation.FieldError;
import org.springframework.web.HttpMediaTypeNotSupportedException;
import org.springframework.web.HttpRequestMethodNotSupportedException;
import org.springframework.web.bind.MissingServletRequestParameterException;
import org.springframework.web.bind.annotation.ControllerAdvice;
import org.springframework.web.bind.annotation.ExceptionHandler;
import org.springframework.web.context.request.async.AsyncRequestNotUsableException;
import org.springframework.web.method.annotation.MethodArgumentTypeMismatchException;
import org.springframework.web.multipart.MaxUploadSizeExceededException;
import org.springframework.web.multipart.MultipartException;
import org.springframework.web.multipart.support.MissingServletRequestPartException;
import org.springframework.web.servlet.ModelAndView;
import org.springframework.web.servlet.resource.NoResourceFoundException;
import org.whinridge.core.said.Said;
import org.whinridge.core.said.Unfit;
import tools.jackson.core.JacksonException;
import tools.jackson.core.exc.StreamReadException;
import tools.jackson.databind.DatabindException;

/**
 * Every error in words: JSON {message} for addresses below /api and for scripts, a page for people.
 */
@ControllerAdvice
class Errors {
  private static final Logger LOG = LoggerFactory.getLogger(Errors.class);
  private final Catalogue catalogue;

  Errors(Catalogue catalogue) {
    this.catalogue = catalogue;
  }

  @ExceptionHandler(Refusal.class)
  Object refused(Refusal e, HttpServletRequest q) {
    return answer(e.status(), e.said(), q);
  }

  /** A lock that was not had in time, also at the second try. */
  @ExceptionHandler(org.springframework.dao.ConcurrencyFailureException.class)
  Object busy(Exception e, HttpServletRequest q) {
    LOG.info("somebody else was writing at {}: {}", q.getRequestURI(), e.toString());
    return refused(Refusal.busy(), q);
  }

  /** Two people wrote the same thing at once, and the store takes one. */
  @ExceptionHandler(org.springframework.dao.DataIntegrityViolationException.class)
  Object twice(Exception e, HttpServletRequest q) {
    LOG.warn("the store refused a row at {}: {}", q.getRequestURI(), e.toString());
    return answer(HttpStatus.CONFLICT, Said.of("refused.twice"), q);
  }

  @ExceptionHandler(NoResourceFoundException.class)
  Object nothing(HttpServletRequest q) {
    return answer(HttpStatus.NOT_FOUND, Said.of("refused.noPage"), q);
  }

  @ExceptionHandler({
    MethodArgumentTypeMismatchException.class,
    MissingServletRequestParameterException.class,
    MissingServletRequestPartException.class,
    HttpRequestMethodNotSupportedException.class,
    HttpMediaTypeNotSupportedException.class,
    IllegalArgumentException.class
  })
  Object malformed(Exception e, HttpServletRequest q) {
    LOG.info("malformed request to {}: {}", q.getRequestURI(), e.toString());
    return answer(
        HttpStatus.BAD_REQUEST,
        e instanceof Unfit unfit
            ? Said.of("refused.sentence", "why", unfit.said())
            : Said.of("refused.form"),
        q);
  }

  /** A member of a body that has the wrong kind of value, by its path. */
  @ExceptionHandler(HttpMessageNotReadableException.class)
  Object unreadable(HttpMessageNotReadableException e, HttpServletRequest q) {
    LOG.info("unreadable body sent to {}: {}", q.getRequestURI(), e.toString());
    if (!(e.getCause() instanceof DatabindException bad) || bad.getPath().isEmpty())
      return answer(
          HttpStatus.BAD_REQUEST,
          e.getCause() instanceof StreamReadException broken
              ? Said.of(
                  "refused.notJson",
                  "line",
                  broken.getLocation().getLineNr(),
                  "column",
                  broken.getLocation().getColumnNr())
              : Said.of("refused.form"),
          q);
    StringBuilder path = new StringBuilder();
    for (JacksonException.Reference r : bad.getPath())
      if (r.getPropertyName() == null) path.append('[').append(r.getIndex()).append(']');
      else path.append(path.length() == 0 ? "" : ".").append(r.getPropertyName());
    return refused(Refusal.wrongKind(path.toString()), q);
  }

  /** A member of a body or form that may not be so, by its path. */
  @ExceptionHandler(BindException.class)
  Object invalid(BindException e, HttpServletRequest q) {
    LOG.info("invalid request to {}: {}", q.getRequestURI(), e.toString());
    List<Said> faults =
        e.getFieldErrors().stream()
            .sorted(java.util.Comparator.comparing(FieldError::getField))
            .map(
                x ->
                    Said.of(
                        "refused.member",
                        "path",
                        x.getField(),
                        "fault",
                        Said.of(String.valueOf(x.getDefaultMessage()))))
            .distinct()
            .toList();
    return answer(
        HttpStatus.BAD_REQUEST,
        Said.of("refused.members", "faults", Said.row(faults, "list.also", "list.also")),
        q);
  }

  @ExceptionHandler(org.springframework.web.HttpMediaTypeNotAcceptableException.class)
  Object otherFormat(HttpServletRequest q) {
    return answer(HttpStatus.NOT_ACCEPTABLE, Said.of("refused.otherFormat"), q);
  }

  @ExceptionHandler(MaxUploadSizeExceededException.class)
  Object tooLarge(HttpServletRequest q) {
    return answer(HttpStatus.CONTENT_TOO_LARGE, Said.of("refused.tooLargeUpload"), q);
  }

  @ExceptionHandler(MultipartException.class)
  Object brokenUpload(HttpServletRequest q) {
    return answer(HttpStatus.BAD_REQUEST, Said.of("refused.brokenUpload"), q);
  }

  @ExceptionHandler(AccessDeniedException.class)
  Object denied(HttpServletRequest q) {
    return answer(HttpStatus.FORBIDDEN, Said.of("refused.notAllowed"), q);
  }

  /** Whoever asked has gone away, so that nobody is there to be answered. */
  @ExceptionHandler({ClientAbortException.class, AsyncRequestNotUsableException.class})
  void gone(Exception e, HttpServletRequest q) {
    LOG.debug("the answer to {} was not waited for", q.getRequestURI(), e);
  }

  @ExceptionHandler(Exception.class)
  Object unexpected(Exception e, HttpServletRequest q) {
    LOG.error("unexpected failure at {}", q.getRequestURI(), e);
    return answer(HttpStatus.INTERNAL_SERVER_ERROR, Said.of("refused.unexpected"), q);
  }

  private Object answer(HttpStatus status, Said message, HttpServletRequest q) {
    String accept = String.valueOf(q.getHeader("Accept"));
    if (q.getRequestURI().startsWith("/api/") || !accept.contains("text/html"))
      return ResponseEntity.status(status)
          .contentType(MediaType.APPLICATION_JSON)
          .body(Map.of("message", message));
    // in words already: what is refused on the way to its page has no formatters yet
    ModelAndView page = new ModelAndView("problem", status);
    return page.addObject("message", catalogue.say(q.getLocale(), message))
        .addObject("status", status.value());
  }
}
