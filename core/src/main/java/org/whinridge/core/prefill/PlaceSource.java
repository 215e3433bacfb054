package org.whinridge.core.prefill;

import org.locationtech.jts.geom.Envelope;
import org.whinridge.core.layer.Feature;

/** The features of a layer that is too large to be made ready whole for look-ups. */
public interface PlaceSource {
  /** How many features it has. */
  int size();

  /** The box around all of them, in degrees; null when there are none. */
  Envelope extent();

  /** The numbers of those whose boxes meet a box in degrees; more may be told, none left out. */
  int[] near(Envelope box);

  /** A feature by its number. */
  Feature feature(int number);
}
