package org.whinridge.app.daybook;

import com.eclipsesource.json.JsonArray;
import com.eclipsesource.json.JsonObject;
import com.fasterxml.jackson.annotation.JsonProperty;
import java.time.Instant;
import java.time.LocalDate;
import java.util.List;
import java.util.Map;
import java.util.UUID;
import org.whinridge.app.round.PackSize;

/** What a pack's parts hold, as devices read them; the documents of core stand in them whole. */
final class Pack {
  private Pack() {}

  /**
   * Which parts there are.
   *
   * @param stamp what the pack is made of; when a contact tells another, it may be another
   * @param bytes of all parts
   */
  record Manifest(
      UUID round, Instant madeAt, String stamp, long bytes, List<Part> parts, List<Told> told) {}

  /**
   * What is told of a pack before it is taken out, see {@link PackSize.Of}.
   *
   * @param part core's PackPart
   */
  record Told(String part, String name, long bytes, int n, int of, boolean cut) {
    static List<Told> of(List<PackSize.Of> all) {
      return all.stream()
          .map(o -> new Told(o.part().id(), o.name(), o.bytes(), o.n(), o.of(), o.cut()))
          .toList();
    }
  }

  /** A part: its name, what its content hashes to (SHA-256), and its size. */
  record Part(String name, String hash, int bytes) {}

  /**
   * What is to be done.
   *
   * @param forms what is filled, in the order in which they are offered
   * @param stops in the order of visit
   */
  record Plan(Round round, Project project, List<FormHead> forms, List<Stop> stops) {}

  /**
   * The round.
   *
   * @param pictures of its note; their parts are named after them
   * @param due "" when it has no date
   * @param people who goes; nobody for anyone
   * @param allows what else may be visited: core's RoundAllows
   * @param expected how many visits are expected; 0 when nobody said
   * @param area where that is, GeoJSON; null for anywhere
   */
  record Round(
      UUID id,
      String name,
      String note,
      List<String> pictures,
      String due,
      List<String> people,
      String allows,
      int expected,
      JsonObject area,
      boolean tellsPosition) {}

  /** A form of the round, whose part is named after its id, and the layer on which it is filled. */
  record FormHead(UUID id, String title, int edition, UUID layer) {}

  /** A feature to be visited, and what to know there: a text, "" for none, and pictures. */
  record Stop(UUID feature, UUID layer, String note, List<String> pictures) {}

  /** All that a visit with a form is begun with. */
  record Work(
      UUID id, System system, Named layer, int edition, JsonObject form, JsonObject schema) {}

  /**
   * The project, by its address and its name, and the word for the units in which it says lengths.
   */
  record Project(String key, String name, String units) {}

  /** The project's coordinate system. */
  record System(String code, String definition) {}

  /** A file that travels with the form; its content in Base64. */
  record File(String name, String type, String content) {}

  /** A layer by its id and name. */
  record Named(UUID id, String name) {}

  /**
   * The features of a layer that may be visited, each a GeoJSON feature with its caption.
   *
   * @param look how it is drawn; what a new one can be begun as stands in its legend
   * @param cut whether there are more around than are taken along
   */
  record Features(
      UUID layer,
      String name,
      JsonObject schema,
      JsonObject look,
      boolean cut,
      List<JsonObject> features) {}

  /**
   * What a layer that is looked up has around the stops, in cells that are parts of their own: a
   * device reads those around the place where it is.
   *
   * @param complete the box in degrees, [west, south, east, north], of which all features are here;
   *     null when the whole layer is
   * @param beyond the box on the other side of the date line, of which all are here too; null where
   *     there is none
   * @param reachM how far the round's look-ups reach, in metres
   */
  record LookUp(
      UUID layer,
      String name,
      JsonObject schema,
      JsonArray complete,
      JsonArray beyond,
      double reachM,
      List<Cell> cells) {}

  /** A part with features of a layer, and the box in degrees that holds them. */
  record Cell(String part, JsonArray box) {}

  /** The place of a layer that is not there any more. */
  record Missing(@JsonProperty("missing") boolean isMissing) {}

  /** The newest visit to a feature, of which a round's form may ask. */
  record LastVisit(LocalDate day, String person, JsonObject answers) {}

  /** The project's map around the stops, layers from the top down. */
  record MapAround(String basemap, List<MapLayer> layers) {}

  /**
   * A layer of the map.
   *
   * @param opacity 0 to 1
   * @param cut whether there are more features around than are taken along
   * @param tiled whether it is too large to travel as features: its tiles are a part of their own
   */
  record MapLayer(
      String id,
      String name,
      double opacity,
      JsonObject look,
      JsonObject schema,
      boolean cut,
      boolean tiled,
      List<JsonObject> features) {}

  /**
   * A layer of the map as vector tiles (Mapbox Vector Tile 2.1, as maps at the desk have them).
   *
   * @param least the coarsest level that is here
   * @param most the finest one; nearer it is drawn larger
   * @param tiles in Base64 by level/column/row
   */
  record Tiles(int least, int most, Map<String, String> tiles) {}

  /**
   * Pictures of a basemap.
   *
   * @param grid where they lie
   * @param cut whether finer levels are left out, since they are too many
   * @param tiles in Base64 by level/column/row
   */
  record Ground(String name, JsonObject grid, boolean cut, Map<String, String> tiles) {}
}
