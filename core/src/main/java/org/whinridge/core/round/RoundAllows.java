package org.whinridge.core.round;

import java.util.Optional;
import org.whinridge.core.text.Word;

/** What may be visited in a round, besides its stops. */
public enum RoundAllows implements Word {
  /** Nothing else. */
  STOPS("stops"),
  /** Any asset of the layers that its forms belong to. */
  ANY("any asset"),
  /** Any asset, and such as nobody knew: a visit makes them. */
  NEW("new assets");

  private final String id;

  RoundAllows(String id) {
    this.id = id;
  }

  /** The word in data. */
  @Override
  public String id() {
    return id;
  }

  /** The word of that name. */
  public static Optional<RoundAllows> of(String id) {
    return Word.of(values(), id);
  }

  /** Whether an asset that is no stop may be visited. */
  public boolean isAnyAsset() {
    return this != STOPS;
  }

  /** Whether a visit may make a feature. */
  public boolean isNew() {
    return this == NEW;
  }
}
