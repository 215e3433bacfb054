package org.whinridge.formats.file;

/**
 * Why a file can't be read, in words for the person who brought it: what, and at which feature or
 * character.
 */
public final class FileProblem extends Exception {
  private static final long serialVersionUID = 1;

  /** A problem in words. */
  public FileProblem(String message) {
    super(message);
  }

  /** A problem in words with what led to it. */
  public FileProblem(String message, Throwable cause) {
    super(message, cause);
  }
}
