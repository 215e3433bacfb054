package org.whinridge.core.prefill;

import com.eclipsesource.json.JsonObject;
import com.eclipsesource.json.JsonValue;
import java.util.Optional;
import org.whinridge.core.place.GeometryKind;
import org.whinridge.core.said.Unfit;
import org.whinridge.core.text.Numbers;
import org.whinridge.core.text.Word;

/**
 * How features of another layer are found by the visit's place.
 *
 * @param layerId the layer
 * @param layerName how people call it
 * @param how by what the place and the features are held together
 * @param withinM the farthest in geodesic metres, for nearest, along and around; for around 0
 *     means: what the place touches
 * @param filter which features count, CQL2 Text over the layer's fields and {@code answers.*}; ""
 *     for all
 * @param several what a position in several polygons gives
 */
public record LookUp(
    String layerId, String layerName, How how, double withinM, String filter, Several several) {
  /** The farthest that a look-up may reach, in metres. */
  public static final double FARTHEST_M = 50_000;

  /** How far the usual look-up of the nearest reaches, in metres. */
  private static final double USUAL_M = 50;

  /** The prefix by which a filter names an answer of the visit. */
  public static final String ANSWERS = "answers.";

  /** By what the place and the features are held together. */
  public enum How implements Word {
    /** The polygon that holds the place; its boundary counts as inside. */
    CONTAINING("containing"),
    /** The nearest feature within a distance. */
    NEAREST("nearest"),
    /** The nearest line within a distance, and where along it. */
    ALONG("along"),
    /** All features within a distance, or that the place touches, summed up. */
    AROUND("around");
    private final String id;

    How(String id) {
      this.id = id;
    }

    /** The word in data. */
    @Override
    public String id() {
      return id;
    }

    static Optional<How> of(String id) {
      return Word.of(values(), id);
    }
  }

  /** What a position in several polygons gives. */
  public enum Several {
    /** The one with the smallest area; of equal areas the one with the smaller id. */
    SMALLEST,
    /** All of them, smallest first. */
    LIST
  }

  public LookUp {
    if (Double.isNaN(withinM) || withinM < 0 || withinM > FARTHEST_M)
      throw new Unfit("form.lookUpReach", "most", 50_000);
  }

  /** The polygon of a layer that holds the place. */
  public static LookUp containing(String layerId, String layerName) {
    return new LookUp(layerId, layerName, How.CONTAINING, 0, "", Several.SMALLEST);
  }

  /**
   * The usual look-up in a layer of a kind: the polygon that holds the place, else the nearest
   * feature; none in a table, which has no places.
   */
  public static Optional<LookUp> usual(String layerId, String layerName, GeometryKind kind) {
    return switch (kind) {
      case POLYGON -> Optional.of(containing(layerId, layerName));
      case POINT, LINE ->
          Optional.of(new LookUp(layerId, layerName, How.NEAREST, USUAL_M, "", Several.SMALLEST));
      case TABLE -> Optional.empty();
    };
  }

  /** The JSON form. */
  public JsonObject json() {
    JsonObject o = new JsonObject().add("layer", layerId).add("layerName", layerName);
    if (how != How.CONTAINING) o.add("how", how.id);
    if (withinM > 0) o.add("withinM", Numbers.json(withinM));
    if (!filter.isEmpty()) o.add("filter", filter);
    if (several == Several.LIST) o.add("several", "list");
    return o;
  }

  /**
   * Reads the JSON form.
   *
   * @throws IllegalArgumentException with a sentence for people
   */
  public static LookUp read(JsonObject o) {
    String how = o.getString("how", "containing");
    JsonValue within = o.get("withinM");
    return new LookUp(
        o.getString("layer", ""),
        o.getString("layerName", ""),
        How.of(how).orElseThrow(() -> new Unfit("form.noLookUp", "how", how)),
        within == null ? 0 : within.asDouble(),
        o.getString("filter", ""),
        o.getString("several", "smallest").equals("list") ? Several.LIST : Several.SMALLEST);
  }
}
