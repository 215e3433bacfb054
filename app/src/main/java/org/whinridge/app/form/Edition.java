package org.whinridge.app.form;

import java.time.Instant;
import java.util.UUID;
import org.whinridge.core.form.Form;
import org.whinridge.core.layer.Schema;

/** A published, numbered, immutable snapshot of a form with the schema it was published against. */
public record Edition(
    UUID formId, int number, Form form, Schema schema, Instant publishedAt, String publishedBy) {}
