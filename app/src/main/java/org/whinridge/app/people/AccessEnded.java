package org.whinridge.app.people;

/**
 * Somebody is signed out everywhere: their sessions are over, and what else lets them in ends too.
 *
 * @param account whose
 */
public record AccessEnded(String account) {}
