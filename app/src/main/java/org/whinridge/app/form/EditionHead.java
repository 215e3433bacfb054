package org.whinridge.app.form;

import java.time.Instant;
import java.util.UUID;

/** An edition in a list, without its documents. */
public record EditionHead(UUID form, int number, Instant publishedAt, String publishedBy) {}
