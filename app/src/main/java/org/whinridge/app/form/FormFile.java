package org.whinridge.app.form;

import java.util.UUID;

/** A file that is kept beside a project's forms: a reference picture, a document of guidance. */
public record FormFile(UUID id, String name, String mediaType, byte[] content) {}
