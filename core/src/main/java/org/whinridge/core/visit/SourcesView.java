package org.whinridge.core.visit;

import com.eclipsesource.json.JsonArray;
import com.eclipsesource.json.JsonObject;
import java.util.List;
import org.whinridge.core.form.Question;
import org.whinridge.core.prefill.LookupResult;
import org.whinridge.core.prefill.Source;
import org.whinridge.core.text.Numbers;

/** What the sources of a prefill chain give, for who puts the chain together. */
final class SourcesView {
  private static final int NAMED = 50;

  private SourcesView() {}

  static JsonArray of(Question q, List<Prefill.First> each, Prefill prefill) {
    JsonArray out = new JsonArray();
    boolean won = false;
    for (int k = 0; k < each.size(); k++) {
      Prefill.First f = each.get(k);
      boolean gives = !f.value().isEmpty();
      JsonObject o =
          new JsonObject()
              .add("shown", q.shown(f.value()).json())
              .add("empty", !gives)
              .add("wins", gives && !won);
      if (!f.note().isEmpty()) o.add("note", f.note().json());
      if (q.prefill().get(k) instanceof Source.Place p) o.add("found", found(p, prefill));
      won |= gives;
      out.add(o);
    }
    return out;
  }

  private static JsonArray found(Source.Place p, Prefill prefill) {
    JsonArray out = new JsonArray();
    String layer = prefill.lookUp(p).layerId();
    for (LookupResult.Hit h : prefill.found(p)) {
      if (out.size() == NAMED) break;
      out.add(
          new JsonObject()
              .add("layer", layer)
              .add("feature", h.feature().id())
              .add("distanceM", Numbers.json(h.distanceM())));
    }
    return out;
  }
}
