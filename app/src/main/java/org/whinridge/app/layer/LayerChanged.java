package org.whinridge.app.layer;

import java.util.Optional;
import java.util.UUID;
import org.whinridge.core.layer.Feature;

/**
 * A layer has changed; told within the transaction that changes it.
 *
 * @param revision the layer's revision by this change
 * @param feature the one feature that changed, if it was only one
 */
public record LayerChanged(UUID layer, long revision, Optional<Feature> feature) {}
