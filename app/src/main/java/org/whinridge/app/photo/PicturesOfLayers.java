package org.whinridge.app.photo;

import java.util.UUID;
import org.springframework.stereotype.Component;
import org.whinridge.app.layer.GoesWithLayer;

/** The pictures that a layer's file brought go with the layer. */
@Component
class PicturesOfLayers implements GoesWithLayer {
  private final Photos photos;

  PicturesOfLayers(Photos photos) {
    this.photos = photos;
  }

  @Override
  public void gone(UUID layer) {
    photos.forgetOfLayer(layer);
  }
}
