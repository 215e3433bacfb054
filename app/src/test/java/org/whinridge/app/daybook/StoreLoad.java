package org.whinridge.app.daybook;

import com.eclipsesource.json.JsonArray;
import com.eclipsesource.json.JsonObject;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Random;
import java.util.UUID;
import org.locationtech.jts.geom.Coordinate;
import org.locationtech.jts.geom.Geometry;
import org.springframework.boot.WebApplicationType;
import org.springframework.boot.builder.SpringApplicationBuilder;
import org.springframework.context.ConfigurableApplicationContext;
import org.springframework.jdbc.core.JdbcTemplate;
import org.whinridge.app.WhinridgeApplication;
import org.whinridge.app.layer.Layer;
import org.whinridge.app.layer.LayerChanges;
import org.whinridge.app.layer.LayerMaking;
import org.whinridge.app.layer.Layers;
import org.whinridge.app.project.Projects;
import org.whinridge.app.round.Rounds;
import org.whinridge.core.layer.Feature;
import org.whinridge.core.layer.Field;
import org.whinridge.core.layer.FieldType;
import org.whinridge.core.layer.Schema;
import org.whinridge.core.place.GeometryJson;
import org.whinridge.core.place.GeometryKind;
import org.whinridge.core.said.Said;
import org.whinridge.core.value.Value;

/**
 * A process that writes to its store as fast as it can: layers imported, features moved, visits
 * handed in, all at once. Prints "writing" when it has begun; ends when it is killed.
 */
public final class StoreLoad {
  private static final Schema SCHEMA =
      new Schema(
          GeometryKind.POLYGON,
          List.of(Field.of("n", "N", FieldType.WHOLE), Field.of("t", "T", FieldType.TEXT)),
          "n",
          List.of("n"));
  private final ConfigurableApplicationContext app;
  private final UUID project;

  private StoreLoad(ConfigurableApplicationContext app) {
    this.app = app;
    this.project = app.getBean(Projects.class).byKey("ostrey").id();
  }

  /** The first argument is the data folder; "indexed" as second brings the spatial index back. */
  public static void main(String[] args) throws Exception {
    ConfigurableApplicationContext app =
        new SpringApplicationBuilder(WhinridgeApplication.class)
            .web(WebApplicationType.SERVLET)
            .profiles("demo")
            .run("--whinridge.data=" + args[0], "--server.port=0");
    if (args.length > 1)
      app.getBean(JdbcTemplate.class).execute("CREATE SPATIAL INDEX again ON feature (geom)");
    StoreLoad load = new StoreLoad(app);
    Layer moving = load.layer("moving", new Random(1), 600);
    go(() -> load.imports(new Random(2)));
    go(() -> load.moves(moving, new Random(3)));
    go(() -> load.handIns(new Random(4)));
    System.out.println("writing");
  }

  private interface Work {
    void run() throws Exception;
  }

  private static void go(Work w) {
    new Thread(
            () -> {
              try {
                w.run();
              } catch (Exception e) {
                e.printStackTrace();
                Runtime.getRuntime().halt(1);
              }
            })
        .start();
  }

  private Layer layer(String name, Random r, int n) throws Exception {
    UUID id =
        app.getBean(LayerMaking.class)
            .make(
                project,
                name,
                SCHEMA,
                Said.text("load"),
                "coordinator",
                take -> {
                  for (int i = 0; i < n; i++)
                    take.accept(
                        new Feature(
                            UUID.randomUUID().toString(),
                            Optional.of(shape(r)),
                            Map.of("n", Value.of(i)),
                            1));
                });
    return app.getBean(Layers.class).byId(id);
  }

  private static Geometry shape(Random r) {
    Coordinate at = new Coordinate(-10.4 + r.nextDouble() * 0.4, 57.8 + r.nextDouble() * 0.2);
    return r.nextBoolean()
        ? GeometryJson.WGS84.createPoint(at)
        : GeometryJson.WGS84.createPoint(at).buffer(0.001, 3);
  }

  private void imports(Random r) throws Exception {
    for (int i = 0; ; i++) layer("import " + i, r, 3_000);
  }

  private void moves(Layer layer, Random r) throws Exception {
    List<Feature> all = app.getBean(Layers.class).first(layer, 600);
    while (true)
      app.getBean(LayerChanges.class)
          .write(
              layer,
              "desk",
              Said.text("moved"),
              "coordinator",
              b -> {
                for (int i = 0; i < 50; i++)
                  b.set(
                      UUID.fromString(all.get(r.nextInt(all.size())).id()),
                      Map.of("t", Value.text("run " + r.nextInt())),
                      Optional.of(shape(r)));
              });
  }

  private void handIns(Random r) throws Exception {
    var round = app.getBean(Rounds.class).of("inspector1").get(0);
    for (int i = 0; ; i++) {
      UUID feature = round.stops().get(r.nextInt(round.stops().size())).featureId();
      JsonObject visit =
          new JsonObject()
              .add("id", UUID.randomUUID().toString())
              .add("round", round.id().toString())
              .add("edition", 1)
              .add("feature", feature.toString())
              .add("startedAt", "2026-05-04T09:00:00Z")
              .add("endedAt", "2026-05-04T09:10:00Z")
              .add("start", new JsonObject().add("startedAt", "2026-05-04T09:00:00Z"))
              .add("state", new JsonObject())
              .add("base", new JsonObject().add("version", 1))
              .add("set", new JsonObject().add("notes", "visit " + i))
              .add("photos", new JsonArray());
      app.getBean(HandIns.class)
          .receive(
              new JsonObject()
                  .add("id", UUID.randomUUID().toString())
                  .add("visits", new JsonArray().add(visit)),
              "inspector1");
    }
  }
}
