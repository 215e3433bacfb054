package org.whinridge.app.round;

import java.time.Instant;
import java.time.LocalDate;
import java.util.List;
import java.util.Optional;
import java.util.UUID;

/** A round as lists show it. */
public record RoundLine(
    UUID id,
    String name,
    String note,
    Optional<LocalDate> due,
    List<String> people,
    Optional<Instant> closedAt,
    long done,
    long stops) {}
