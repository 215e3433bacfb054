package org.whinridge.core.travel;

import org.whinridge.core.text.Word;

/** Of what a pack is made, as people are told before they take it out. */
public enum PackPart implements Word {
  /** The round itself: stops, notes, who goes. */
  PLAN("plan"),
  /** Forms with their rules. */
  FORMS("forms"),
  /** Stops and other assets that may be visited. */
  ASSETS("assets"),
  /** What earlier visits answered. */
  LAST_VISITS("last visits"),
  /** Layers in which forms look things up. */
  LOOK_UPS("look-ups"),
  /** Reference pictures and documents of forms. */
  PICTURES("pictures"),
  /** The layers of the project's map. */
  MAP("map"),
  /** A layer of that map which is too large for features. */
  TILES("tiles"),
  /** The ground under them. */
  BASEMAP("basemap");

  private final String id;

  PackPart(String id) {
    this.id = id;
  }

  /** The word in data. */
  @Override
  public String id() {
    return id;
  }
}
