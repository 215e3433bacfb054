package org.whinridge.app.daybook;

import jakarta.persistence.AttributeConverter;
import java.time.Instant;
import java.util.Optional;
import java.util.UUID;
import org.whinridge.core.said.Said;
import org.whinridge.core.text.Word;

/**
 * Something that arrived in a hand-in and could not be read as a visit. Its text is kept for ever
 * under an id of its own, whatever id it came with.
 *
 * @param sentId the id that it came with; "" for none
 * @param reason why it could not be read
 * @param fateReason why it was put away, or what was said to whoever it was given to
 */
public record SetAside(
    UUID id,
    String sentId,
    String person,
    String device,
    Instant receivedAt,
    Said reason,
    Fate fate,
    String fateReason,
    Optional<String> givenTo,
    Optional<Instant> decidedAt,
    Optional<String> decidedBy) {
  /** What became of it. */
  public enum Fate implements Word {
    OPEN("open"),
    READ_AGAIN("read again"),
    GIVEN("given"),
    PUT_AWAY("put away");
    private final String id;

    Fate(String id) {
      this.id = id;
    }

    /** The word in data and on screens. */
    @Override
    public String id() {
      return id;
    }

    /** Whether somebody may still act on it. */
    public boolean isOpen() {
      return this == OPEN || this == GIVEN;
    }

    /** The fate of that word. */
    public static Optional<Fate> of(String id) {
      return Word.of(values(), id);
    }
  }

  /** Fates as the words that stand in the store. */
  static final class FateInTheStore implements AttributeConverter<Fate, String> {
    @Override
    public String convertToDatabaseColumn(Fate f) {
      return f.id();
    }

    @Override
    public Fate convertToEntityAttribute(String id) {
      return Fate.of(id).orElseThrow(() -> new IllegalStateException("no fate is called " + id));
    }
  }
}
