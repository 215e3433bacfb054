package org.whinridge.app.daybook;

import com.eclipsesource.json.Json;
import com.eclipsesource.json.JsonObject;
import com.eclipsesource.json.JsonValue;
import java.time.Instant;
import java.util.Collection;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.UUID;
import java.util.stream.Collectors;
import org.springframework.data.domain.Limit;
import org.springframework.stereotype.Component;
import org.springframework.transaction.annotation.Transactional;
import org.whinridge.app.form.FormDraft;
import org.whinridge.app.form.VisitsOfForms;
import org.whinridge.app.layer.Layer;
import org.whinridge.core.place.GeometryJson;

/** Tells what visits there are of a form. */
@Component
@Transactional(readOnly = true)
class FormVisits implements VisitsOfForms {
  private final VisitRepository visits;
  private final LastVisits lastVisits;

  FormVisits(VisitRepository visits, LastVisits lastVisits) {
    this.visits = visits;
    this.lastVisits = lastVisits;
  }

  @Override
  public Map<UUID, Long> since(Collection<UUID> forms, Instant from) {
    return visits.countSince(forms, from).stream()
        .collect(Collectors.toMap(row -> (UUID) row[0], row -> (Long) row[1]));
  }

  @Override
  public Map<UUID, JsonObject> last(FormDraft draft, Layer layer, Collection<UUID> features) {
    Map<UUID, JsonObject> out = new LinkedHashMap<>();
    lastVisits
        .of(new LastVisits.Asked(draft.id(), draft.form(), layer.schema(), layer), features)
        .forEach(
            (feature, v) ->
                out.put(
                    feature,
                    new JsonObject().add("last", v.answers()).add("lastDay", v.day().toString())));
    return out;
  }

  @Override
  public long count(UUID form) {
    return visits.countFilled(form);
  }

  @Override
  public List<Received> received(UUID form, Optional<UUID> below, int most) {
    Optional<VisitEntity> from = below.flatMap(visits::findById).filter(v -> isOf(v, form));
    if (below.isPresent() && from.isEmpty()) return List.of();
    return from
        .map(v -> visits.filledBelow(form, v.receivedAt, v.id, Limit.of(most)))
        .orElseGet(() -> visits.filled(form, Limit.of(most)))
        .stream()
        .map(FormVisits::of)
        .toList();
  }

  @Override
  public Optional<Received> received(UUID form, UUID visit) {
    return visits.findById(visit).filter(v -> isOf(v, form)).map(FormVisits::of);
  }

  private static boolean isOf(VisitEntity v, UUID form) {
    return form.equals(v.formId) && v.edition > 0;
  }

  private static Received of(VisitEntity v) {
    SentVisit sent = SentVisit.read(Json.parse(v.document).asObject(), v.document);
    JsonValue feature = Json.NULL;
    if (!sent.base().isNew())
      feature =
          new JsonObject()
              .add("type", "Feature")
              .add("id", v.featureId == null ? "" : v.featureId.toString())
              .add("version", sent.base().version())
              .add(
                  "geometry",
                  sent.base().geometry().<JsonValue>map(GeometryJson::write).orElse(Json.NULL))
              .add("properties", sent.base().values());
    return new Received(
        v.id, v.person, v.endedAt, feature, sent.start(), sent.state(), sent.open());
  }
}
