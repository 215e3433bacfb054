package org.whinridge.core.visit;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import org.locationtech.jts.geom.Coordinate;
import org.whinridge.core.form.Allowed;
import org.whinridge.core.form.compile.ExecutableForm;
import org.whinridge.core.place.Geodesy;
import org.whinridge.core.place.GeometryKind;
import org.whinridge.core.prefill.LookupResult;
import org.whinridge.core.prefill.PlaceIndex;
import org.whinridge.core.value.Value;

/** All that is open on a sheet, in its order. */
final class OpenPoints {
  private final ExecutableForm form;
  private final VisitStart start;
  private final FillingState state;

  OpenPoints(ExecutableForm form, VisitStart start, FillingState state) {
    this.form = form;
    this.start = start;
    this.state = state;
  }

  /** What is open; confirmed soft points are not. */
  List<OpenPoint> all() {
    List<OpenPoint> out = new ArrayList<>();
    int list = 0;
    for (int s = 0; s < form.form().sections().size(); s++) {
      if (!form.form().sections().get(s).isList()) {
        for (int i : form.sheet(s)) add(state.top.points.get(form.local(i)), out);
        continue;
      }
      add(RowPoints.of(form, state, list), out);
      for (Row r : state.rows.get(list))
        for (int i : form.sheet(s)) add(r.answers.points.get(form.local(i)), out);
      list++;
    }
    placeless().ifPresent(p -> add(List.of(p), out));
    outside().ifPresent(p -> add(List.of(p), out));
    inaccurate().ifPresent(p -> add(List.of(p), out));
    return out;
  }

  private void add(List<OpenPoint> points, List<OpenPoint> into) {
    for (OpenPoint p : points) if (!state.confirmedSoft.contains(p.key())) into.add(p);
  }

  /** The point about a new feature that has no place yet, or none of its layer's kind. */
  private Optional<OpenPoint> placeless() {
    GeometryKind kind = form.schema().kind();
    if (start.made().isEmpty()
        || kind == GeometryKind.TABLE
        || state.geometry.filter(kind::fits).isPresent()) return Optional.empty();
    return Optional.of(
        OpenPoint.of(OpenPoint.PLACE, "", OpenPoint.Kind.NEEDED, new PointReason.NoPlace(kind)));
  }

  /** The point about the place of a new feature, which is the device's, known too badly. */
  private Optional<OpenPoint> inaccurate() {
    double most = form.form().settings().accuracyM();
    double is = start.fix().accuracyM().orElse(0);
    if (most <= 0 || is <= most || start.feature().isPresent() || state.geometry.isEmpty())
      return Optional.empty();
    return Optional.of(
        OpenPoint.of(
            OpenPoint.PLACE,
            "",
            OpenPoint.Kind.SOFT,
            new PointReason.Inaccurate(is, most),
            List.of(new Value.Place(state.geometry.get()))));
  }

  /** The point about a position that lies outside the allowed area. */
  private Optional<OpenPoint> outside() {
    Allowed allowed = form.form().allowed().orElse(null);
    if (allowed == null || state.geometry.isEmpty()) return Optional.empty();
    PlaceIndex index = start.lookups().get(allowed.layerId());
    Coordinate at = Geodesy.anchor(state.geometry.get());
    if (index == null) return Optional.empty();
    LookupResult r = index.containing(at);
    if (r instanceof LookupResult.Found || r instanceof LookupResult.NotAtHand)
      return Optional.empty();
    return Optional.of(
        OpenPoint.of(
            OpenPoint.PLACE,
            "",
            OpenPoint.Kind.of(allowed.weight()),
            new PointReason.Outside(allowed.layerName()),
            List.of(new Value.Place(state.geometry.get()))));
  }
}
