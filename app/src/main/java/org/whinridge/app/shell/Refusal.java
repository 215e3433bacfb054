package org.whinridge.app.shell;

import org.springframework.http.HttpStatus;

/**
 * Something that can't be done, in words for the person who asked: what, what was kept, what to do.
 */
public final class Refusal extends RuntimeException {
  private static final long serialVersionUID = 1;
  private final HttpStatus status;

  private Refusal(HttpStatus status, String message) {
    super(message);
    this.status = status;
  }

  /** The thing is not there, or not for this person. */
  public static Refusal notFound(String what) {
    return new Refusal(
        HttpStatus.NOT_FOUND,
        "There is no "
            + what
            + " at this address. It may have been removed, or the address is incomplete.");
  }

  /** The request can't be carried out as it is. */
  public static Refusal refused(String message) {
    return new Refusal(HttpStatus.UNPROCESSABLE_CONTENT, message);
  }

  /** A member of what was sent, named by its path, has the wrong kind of value. */
  public static Refusal wrongKind(String path) {
    return new Refusal(
        HttpStatus.BAD_REQUEST,
        "“" + path + "” has not the kind of value that is expected there. Nothing was changed.");
  }

  /** Somebody else was quicker. */
  public static Refusal conflict(String message) {
    return new Refusal(HttpStatus.CONFLICT, message);
  }

  /** Somebody is writing just now, and was not done in time. */
  public static Refusal busy() {
    return new Refusal(
        HttpStatus.CONFLICT,
        "Somebody is writing to this just now and was not done in time. Nothing of yours was written; try again.");
  }

  /** More at once than is taken. */
  public static Refusal tooLarge(String message) {
    return new Refusal(HttpStatus.CONTENT_TOO_LARGE, message);
  }

  /** More than one person may hand over in a while. */
  public static Refusal tooMuch(String message) {
    return new Refusal(HttpStatus.TOO_MANY_REQUESTS, message);
  }

  /** This person may not do it. */
  public static Refusal forbidden(String message) {
    return new Refusal(HttpStatus.FORBIDDEN, message);
  }

  /** The HTTP status that fits. */
  public HttpStatus status() {
    return status;
  }
}
