package org.whinridge.app.round;

import com.eclipsesource.json.Json;
import com.eclipsesource.json.JsonObject;
import com.eclipsesource.json.JsonValue;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.UUID;
import java.util.stream.Collectors;
import org.locationtech.jts.geom.Coordinate;
import org.springframework.stereotype.Controller;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.servlet.support.ServletUriComponentsBuilder;
import org.whinridge.app.form.FormDraft;
import org.whinridge.app.form.Forms;
import org.whinridge.app.layer.Layer;
import org.whinridge.app.layer.Layers;
import org.whinridge.app.project.DeskPage;
import org.whinridge.app.project.Project;
import org.whinridge.app.project.Projects;
import org.whinridge.app.shell.Needs;
import org.whinridge.app.shell.QrCode;
import org.whinridge.core.access.Right;
import org.whinridge.core.place.GeometryJson;
import org.whinridge.core.place.Units;
import org.whinridge.core.round.Note;
import org.whinridge.core.round.RoundPicture;

/** A round is handed over: as a link and a QR code that open the day book at it, and on paper. */
@Controller
class RoundHandOver {
  private static final int WIDTH = 720;
  private static final int HEIGHT = 460;
  private static final double FOOT_M = 0.3048;

  private final DeskPage desk;
  private final Projects projects;
  private final Rounds rounds;
  private final RoundLive live;
  private final Forms forms;
  private final Layers layers;

  RoundHandOver(
      DeskPage desk, Projects projects, Rounds rounds, RoundLive live, Forms forms, Layers layers) {
    this.desk = desk;
    this.projects = projects;
    this.rounds = rounds;
    this.live = live;
    this.forms = forms;
    this.layers = layers;
  }

  /** Where the day book opens at a round. */
  private static String address(UUID round) {
    return ServletUriComponentsBuilder.fromCurrentContextPath()
        .path("/day")
        .fragment("round=" + round)
        .toUriString();
  }

  @Needs(Right.SEE_WORK)
  @GetMapping("/p/{project}/rounds/{id}/hand-over")
  String handOver(@PathVariable String project, @PathVariable UUID id, Model model) {
    Project p = desk.open(project, "rounds", model);
    model.addAttribute("round", rounds.get(p.id(), id));
    model.addAttribute("address", address(id));
    model.addAttribute("picture", QrCode.picture(address(id)));
    return "round-hand-over";
  }

  /** A stop on paper. */
  record Line(int number, String caption, String layer, Note note, String person) {}

  @Needs(Right.SEE_WORK)
  @GetMapping("/p/{project}/rounds/{id}/print")
  String print(@PathVariable String project, @PathVariable UUID id, Model model) {
    Project p = desk.open(project, "rounds", model);
    Round r = rounds.get(p.id(), id);
    Map<UUID, RoundLive.OnLayer> there = live.features(r);
    List<Line> lines = new ArrayList<>();
    List<Coordinate> places = new ArrayList<>();
    Map<UUID, String> layerNames =
        layers.list(p.id()).stream().collect(Collectors.toMap(Layer::id, Layer::name));
    for (Round.Stop s : r.stops()) {
      RoundLive.OnLayer f = there.get(s.featureId());
      lines.add(
          new Line(
              lines.size() + 1,
              f == null ? "" : f.caption(),
              layerNames.getOrDefault(s.layerId(), ""),
              s.note(),
              s.person().orElse("")));
      places.add(f == null ? null : Choosing.place(f.feature()).orElse(null));
    }
    List<FormDraft> filled = r.forms().stream().map(f -> forms.get(p.id(), f)).toList();
    model.addAttribute("round", r);
    model.addAttribute("lines", lines);
    model.addAttribute("forms", filled);
    model.addAttribute("picture", QrCode.picture(address(id)));
    model.addAttribute("feet", p.units() == Units.FEET);
    Optional<RoundPicture.Drawn> map =
        RoundPicture.draw(
            new RoundPicture.Of(places, r.area().orElse(null), ground(projects.basemap(p.id()))),
            WIDTH,
            HEIGHT);
    model.addAttribute("map", map.orElse(null));
    model.addAttribute("barFt", map.map(d -> Math.round(d.barM() / FOOT_M)).orElse(0L));
    return "round-print";
  }

  private static List<RoundPicture.Ground> ground(String basemap) {
    List<RoundPicture.Ground> out = new ArrayList<>();
    JsonValue features = Json.parse(basemap).asObject().get("features");
    if (features == null || !features.isArray()) return out;
    for (JsonValue v : features.asArray()) {
      JsonObject f = v.asObject();
      JsonValue shape = f.get("geometry");
      JsonValue about = f.get("properties");
      if (shape == null || !shape.isObject() || about == null || !about.isObject()) continue;
      GeometryJson.read(shape.asObject())
          .ifPresent(
              g -> out.add(new RoundPicture.Ground(about.asObject().getString("what", ""), g)));
    }
    return out;
  }
}
