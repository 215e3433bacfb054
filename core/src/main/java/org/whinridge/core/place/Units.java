package org.whinridge.core.place;

import org.whinridge.core.text.Word;

/**
 * In which units lengths and areas on the ground are said; they are always computed in metres.
 * Definitions (NIST Special Publication 811, appendix B, from memory): a foot is 0.3048 m, a mile
 * 5,280 ft, an acre 43,560 square feet.
 */
public enum Units implements Word {
  /** Metres and kilometres, hectares. */
  METRIC("metric"),
  /** Feet and miles, acres. */
  FEET("feet");

  private final String id;

  Units(String id) {
    this.id = id;
  }

  @Override
  public String id() {
    return id;
  }
}
