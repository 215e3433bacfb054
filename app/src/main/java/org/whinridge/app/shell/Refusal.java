package org.whinridge.app.shell;

import org.springframework.http.HttpStatus;
import org.whinridge.core.said.Said;
import org.whinridge.formats.file.FileProblem;

/**
 * Something that can't be done, to be told to the person who asked: what, what was kept, what to
 * do.
 */
public final class Refusal extends RuntimeException {
  private static final long serialVersionUID = 1;
  private final HttpStatus status;

  private final transient Said said;

  private Refusal(HttpStatus status, Said said) {
    super(said.toString());
    this.status = status;
    this.said = said;
  }

  /** What is to be told of a failure: its own words, or its message as it stands. */
  public static Said said(Throwable e) {
    return e instanceof Refusal r ? r.said : FileProblem.said(e);
  }

  /**
   * The thing is not there, or not for this person.
   *
   * @param what the key of its name
   */
  public static Refusal notFound(String what) {
    return notFound(Said.of(what));
  }

  /** The thing is not there, or not for this person. */
  public static Refusal notFound(Said what) {
    return new Refusal(HttpStatus.NOT_FOUND, Said.of("refused.notFound", "what", what));
  }

  /** The request can't be carried out as it is. */
  public static Refusal refused(String key, Object... args) {
    return new Refusal(HttpStatus.UNPROCESSABLE_CONTENT, Said.of(key, args));
  }

  /** A member of what was sent, named by its path, has the wrong kind of value. */
  public static Refusal wrongKind(String path) {
    return new Refusal(HttpStatus.BAD_REQUEST, Said.of("refused.wrongKind", "path", path));
  }

  /** The request can't be carried out as it is. */
  public static Refusal refused(Said said) {
    return new Refusal(HttpStatus.UNPROCESSABLE_CONTENT, said);
  }

  /** Somebody else was quicker. */
  public static Refusal conflict(String key, Object... args) {
    return new Refusal(HttpStatus.CONFLICT, Said.of(key, args));
  }

  /** Somebody is writing just now, and was not done in time. */
  public static Refusal busy() {
    return new Refusal(HttpStatus.CONFLICT, Said.of("refused.busy"));
  }

  /** Somebody else was quicker. */
  public static Refusal conflict(Said said) {
    return new Refusal(HttpStatus.CONFLICT, said);
  }

  /** More at once than is taken. */
  public static Refusal tooLarge(String key, Object... args) {
    return new Refusal(HttpStatus.CONTENT_TOO_LARGE, Said.of(key, args));
  }

  /** More than one person may hand over in a while. */
  public static Refusal tooMuch(String key, Object... args) {
    return new Refusal(HttpStatus.TOO_MANY_REQUESTS, Said.of(key, args));
  }

  /** This person may not do it. */
  public static Refusal forbidden(String key, Object... args) {
    return new Refusal(HttpStatus.FORBIDDEN, Said.of(key, args));
  }

  /** What is to be told. */
  public Said said() {
    return said;
  }

  /** The HTTP status that fits. */
  public HttpStatus status() {
    return status;
  }
}
