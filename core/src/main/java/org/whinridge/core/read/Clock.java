package org.whinridge.core.read;

import java.time.Instant;
import java.time.LocalDate;

/** The day and moment that {@code today()} and {@code now()} give in a filter. */
public record Clock(LocalDate today, Instant now) {}
