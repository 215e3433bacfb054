package org.whinridge.app.daybook;

import com.eclipsesource.json.JsonObject;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.UUID;
import org.springframework.stereotype.Component;
import org.springframework.transaction.annotation.Transactional;
import org.whinridge.app.bringin.PastVisits;
import org.whinridge.app.form.FormDraft;
import org.whinridge.app.form.Forms;
import org.whinridge.app.layer.BroughtBeside;
import org.whinridge.app.layer.GoesWithLayer;
import org.whinridge.app.layer.Layer;
import org.whinridge.app.layer.Layers;
import org.whinridge.app.photo.Photos;
import org.whinridge.app.shell.Ids;
import org.whinridge.app.shell.Refusal;
import org.whinridge.app.shell.Sha256;
import org.whinridge.core.said.Said;
import org.whinridge.core.value.Value;
import org.whinridge.core.value.ValueJson;
import org.whinridge.core.visit.VisitState;

/** Visits that came in files: kept as accepted ones, under a hand-in of their own. */
@Component
class PastVisitKeeping implements PastVisits, GoesWithLayer, BroughtBeside {
  private static final String DEVICE = "brought in";
  private static final int FROM_A_FILE = 0;
  private final VisitRepository visits;
  private final HandInRepository handIns;
  private final Layers layers;
  private final Forms forms;
  private final Photos photos;

  PastVisitKeeping(
      VisitRepository visits, HandInRepository handIns, Layers layers, Forms forms, Photos photos) {
    this.visits = visits;
    this.handIns = handIns;
    this.layers = layers;
    this.forms = forms;
    this.photos = photos;
  }

  @Override
  @Transactional
  public UUID keep(UUID layerId, Said source, String person, List<PastVisit> past) {
    Layer layer = layers.byId(layerId);
    Optional<UUID> form =
        forms.list(layer.projectId()).stream()
            .filter(f -> f.layer().filter(layerId::equals).isPresent())
            .map(FormDraft::id)
            .findFirst();
    HandInEntity h = new HandInEntity();
    h.id = UUID.randomUUID();
    h.person = person;
    h.device = DEVICE;
    h.receivedAt = Layers.now();
    h.visits = past.size();
    handIns.save(h);
    List<VisitEntity> all = new ArrayList<>();
    for (PastVisit p : past) {
      VisitEntity v = visit(p, h, layerId, form, source);
      all.add(v);
    }
    visits.saveAllAndFlush(all);
    for (int i = 0; i < all.size(); i++) {
      int place = 0;
      for (Path photo : past.get(i).photos()) photo(all.get(i), photo, place++);
    }
    return h.id;
  }

  private static VisitEntity visit(
      PastVisit p, HandInEntity h, UUID layer, Optional<UUID> form, Said source) {
    JsonObject kept = new JsonObject();
    JsonObject answers = new JsonObject();
    for (Map.Entry<String, Value> e : p.answers().entrySet()) {
      kept.add(e.getKey(), ValueJson.write(e.getValue()));
      answers.add(e.getKey(), new JsonObject().add("value", ValueJson.write(e.getValue())));
    }
    VisitEntity v = new VisitEntity();
    v.id = Ids.next();
    v.handInId = h.id;
    v.formId = form.orElse(null);
    v.edition = FROM_A_FILE;
    v.layerId = layer;
    v.featureId = p.feature();
    v.person = p.person();
    v.device = DEVICE;
    v.startedAt = p.at();
    v.endedAt = p.at();
    v.receivedAt = h.receivedAt;
    v.document =
        new JsonObject()
            .add("id", v.id.toString())
            .add("source", source.json())
            .add("kept", kept)
            .add("state", new JsonObject().add("answers", answers))
            .toString();
    v.documentHash = Sha256.of(v.document);
    v.findings = "[]";
    v.state = VisitState.ACCEPTED;
    v.reason = source;
    v.decidedAt = h.receivedAt;
    v.decidedBy = h.person;
    return v;
  }

  private void photo(VisitEntity v, Path file, int place) {
    try {
      UUID id = UUID.randomUUID();
      photos.announce(
          v.id,
          List.of(
              new Photos.Announced(id, "photo", Sha256.of(file), Files.size(file), "{}", place)),
          new Photos.Sender(v.person, ""));
      photos.receive(id, file);
    } catch (IOException e) {
      throw new UncheckedIOException(e);
    }
  }

  @Override
  @Transactional
  public int takeBack(UUID handIn, String person) {
    return away(visits.findByHandInId(handIn));
  }

  @Override
  @Transactional(readOnly = true)
  public List<Brought> broughtTo(UUID layer) {
    return visits.broughtTo(layer).stream()
        .map(
            r ->
                new Brought(
                    (UUID) r[0],
                    (Instant) r[1],
                    String.valueOf(r[2]),
                    Said.of("told.pastVisitsFrom", "n", (Long) r[4], "source", (Said) r[3])))
        .toList();
  }

  @Override
  @Transactional
  public Said takeAway(UUID layer, UUID handIn, String person) {
    List<VisitEntity> all =
        visits.findByHandInId(handIn).stream()
            .filter(v -> v.edition == FROM_A_FILE && layer.equals(v.layerId))
            .toList();
    if (all.isEmpty()) throw Refusal.conflict("refused.thesePastVisitsGone");
    int n = away(all);
    return Said.of("told.pastVisitsGone", "n", n);
  }

  /** Visits that came in files go with the layer. */
  @Override
  @Transactional
  public void gone(UUID layer) {
    away(visits.findByLayerIdAndEdition(layer, FROM_A_FILE));
  }

  private int away(List<VisitEntity> all) {
    photos.forget(all.stream().map(v -> v.id).toList());
    visits.deleteAll(all);
    visits.flush();
    return all.size();
  }
}
