package org.whinridge.app.form;

import java.time.Instant;

/** An edition in a list, without its documents. */
public record EditionHead(int number, Instant publishedAt, String publishedBy) {}
