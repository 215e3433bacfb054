package org.whinridge.core.profile;

/** A value as text and how many features have it. */
public record ValueCount(String value, int count) {}
