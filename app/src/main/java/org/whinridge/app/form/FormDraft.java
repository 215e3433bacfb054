package org.whinridge.app.form;

import java.time.Instant;
import java.util.UUID;
import org.whinridge.core.form.Form;

/** A form as it is being drafted; {@code edition} is the newest published number, 0 for none. */
public record FormDraft(
    UUID id,
    UUID projectId,
    UUID layerId,
    Form form,
    long revision,
    Instant changedAt,
    int edition) {}
