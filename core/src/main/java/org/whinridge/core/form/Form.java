package org.whinridge.core.form;

import com.eclipsesource.json.Json;
import com.eclipsesource.json.JsonArray;
import com.eclipsesource.json.JsonObject;
import com.eclipsesource.json.JsonValue;
import com.eclipsesource.json.ParseException;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import org.whinridge.core.layer.Code;
import org.whinridge.core.layer.Field;
import org.whinridge.core.layer.Schema;
import org.whinridge.core.prefill.LookUp;
import org.whinridge.core.prefill.Source;
import org.whinridge.core.said.Unfit;

/**
 * Questions over one layer: what a draft and an edition hold. Immutable; edits, in the package
 * {@code edit}, give a new form.
 *
 * @param texts its title
 * @param rules rules that several questions share
 * @param lookUps place look-ups that several questions share, by name
 * @param allowed where the visit's position must lie
 * @param guidance documents and texts that travel with it, in order
 */
public record Form(
    Texts texts,
    List<Section> sections,
    List<NamedRule> rules,
    Map<String, LookUp> lookUps,
    Optional<Allowed> allowed,
    FormSettings settings,
    List<Guidance> guidance) {
  /** The most questions that a form file may have. */
  public static final int MOST_QUESTIONS = 2000;

  /** The longest form file, in characters. */
  public static final int MOST_CHARACTERS = 8_000_000;

  public Form {
    sections = List.copyOf(sections);
    rules = List.copyOf(rules);
    guidance = List.copyOf(guidance);
    lookUps = java.util.Collections.unmodifiableMap(new LinkedHashMap<>(lookUps));
  }

  /** A form of sections alone. */
  public Form(String title, List<Section> sections) {
    this(
        Texts.of("title", title),
        sections,
        List.of(),
        Map.of(),
        Optional.empty(),
        FormSettings.NONE,
        List.of());
  }

  /**
   * A form with one question for each field of the layer that travels, and one for photos that is
   * kept on the visit.
   */
  public static Form fromLayer(String title, String layerName, Schema schema) {
    List<Question> qs = new ArrayList<>();
    for (Field f : schema.fields()) if (!f.officeOnly()) qs.add(Question.forField(f));
    Question plain =
        Question.of(
            schema.field("photo").isPresent() ? "visit_photo" : "photo",
            "Photo",
            QuestionType.PHOTO);
    Question photo = Question.read(plain.json().add("need", "wanted").add("most", 5));
    return new Form(
        title,
        List.of(Section.of(layerName, true, qs), Section.of("Photos", true, List.of(photo))));
  }

  /** The title. */
  public String title() {
    return texts.get("title");
  }

  /** The form with other sections. */
  public Form with(List<Section> others) {
    return new Form(texts, others, rules, lookUps, allowed, settings, guidance);
  }

  /** The form with other named rules. */
  public Form withRules(List<NamedRule> others) {
    return new Form(texts, sections, others, lookUps, allowed, settings, guidance);
  }

  /** The form with other look-ups that questions share. */
  public Form withLookUps(Map<String, LookUp> others) {
    return new Form(texts, sections, rules, others, allowed, settings, guidance);
  }

  /** The form with other settings. */
  public Form with(FormSettings others) {
    return new Form(texts, sections, rules, lookUps, allowed, others, guidance);
  }

  /** All questions in the order of the sheet. */
  public List<Question> questions() {
    List<Question> out = new ArrayList<>();
    for (Section s : sections) out.addAll(s.questions());
    return out;
  }

  /** The question of that name. */
  public Optional<Question> question(String name) {
    for (Section s : sections)
      for (Question q : s.questions()) if (q.name().equals(name)) return Optional.of(q);
    return Optional.empty();
  }

  /** The list section of that name. */
  public Optional<Section> list(String name) {
    return sections.stream().filter(s -> s.isList() && s.name().equals(name)).findFirst();
  }

  /** The form in another language; what it does not have in it stays in the form's own. */
  public Form in(String language) {
    return new Form(
        texts.in(language),
        sections.stream().map(s -> s.in(language)).toList(),
        rules,
        lookUps,
        allowed,
        settings,
        guidance);
  }

  /** The layers that look-ups and the allowed area read: names as the form knows them, by id. */
  public Map<String, String> otherLayers() {
    Map<String, String> out = new LinkedHashMap<>();
    for (Question q : questions())
      for (Source s : q.prefill())
        if (s instanceof Source.Place p)
          p.own().ifPresent(l -> out.put(l.layerId(), l.layerName()));
    lookUps.values().forEach(l -> out.put(l.layerId(), l.layerName()));
    allowed.ifPresent(a -> out.put(a.layerId(), a.layerName()));
    out.remove("");
    return out;
  }

  /** Whether some question begins with what a look-up takes of a field of another layer. */
  public boolean takes(String layer, String field) {
    for (Question q : questions())
      for (Source s : q.prefill())
        if (s instanceof Source.Place p
            && p.take().field().equals(field)
            && p.own()
                .or(() -> Optional.ofNullable(lookUps.get(p.shared())))
                .filter(l -> l.layerId().equals(layer))
                .isPresent()) return true;
    return false;
  }

  /** How far from a visit its look-ups reach, in metres; 0 when they only ask what holds it. */
  public double reachM() {
    double most = 0;
    for (LookUp l : lookUps.values()) most = Math.max(most, l.withinM());
    for (Question q : questions())
      for (Source s : q.prefill())
        if (s instanceof Source.Place p && p.own().isPresent())
          most = Math.max(most, p.own().get().withinM());
    return most;
  }

  /** The ids of all files that it refers to: reference pictures and documents of its guidance. */
  public Set<String> files() {
    Set<String> out = new LinkedHashSet<>();
    for (Question q : questions()) {
      out.add(q.layout().picture());
      for (Code c : q.codes()) out.add(c.picture());
    }
    for (Guidance g : guidance) out.add(g.file());
    out.remove("");
    return out;
  }

  /** The other languages that any text of the form is written in, in the order of the sheet. */
  public List<String> languages() {
    Set<String> out = new LinkedHashSet<>(texts.others().keySet());
    for (Section s : sections) {
      out.addAll(s.texts().others().keySet());
      s.blocks().forEach(b -> out.addAll(b.texts().others().keySet()));
      for (Question q : s.questions()) {
        out.addAll(q.texts().others().keySet());
        q.logic().checks().forEach(c -> out.addAll(c.texts().others().keySet()));
        q.codes().forEach(c -> out.addAll(c.labels().keySet()));
      }
    }
    return List.copyOf(out);
  }

  /** The JSON form, see docs/form-file.md. */
  public JsonObject json() {
    JsonObject o = new JsonObject().add("title", title());
    texts.writeOthers(o);
    if (!rules.isEmpty()) o.add("rules", NamedRule.write(rules));
    if (!lookUps.isEmpty()) {
      JsonObject ls = new JsonObject();
      lookUps.forEach((name, l) -> ls.add(name, l.json()));
      o.add("lookUps", ls);
    }
    allowed.ifPresent(a -> o.add("allowed", a.json()));
    if (!settings.equals(FormSettings.NONE)) o.add("settings", settings.json());
    if (!guidance.isEmpty()) o.add("guidance", Guidance.write(guidance));
    JsonArray ss = new JsonArray();
    for (Section s : sections) ss.add(s.json());
    return o.add("sections", ss);
  }

  /**
   * Reads the JSON form.
   *
   * @throws IllegalArgumentException with a sentence for people when this is not a form
   */
  public static Form read(String json) {
    if (json.length() > MOST_CHARACTERS) throw new Unfit("form.tooLong", "most", 8_000_000);
    try {
      JsonObject o = Json.parse(json).asObject();
      List<Section> sections = new ArrayList<>();
      JsonValue list = o.get("sections");
      if (list != null) for (JsonValue v : list.asArray()) sections.add(Section.read(v.asObject()));
      Map<String, LookUp> lookUps = new LinkedHashMap<>();
      if (o.get("lookUps") != null)
        for (JsonObject.Member m : o.get("lookUps").asObject())
          lookUps.put(m.getName(), LookUp.read(m.getValue().asObject()));
      Form f =
          new Form(
              Texts.read(o, "title"),
              sections,
              NamedRule.read(o.get("rules")),
              lookUps,
              Allowed.read(o.get("allowed")),
              FormSettings.read(o.get("settings")),
              Guidance.read(o.get("guidance")));
      int size = f.sections().size() + f.rules().size() + f.lookUps().size();
      for (Section s : f.sections()) size += s.questions().size() + s.blocks().size();
      if (size > 2 * MOST_QUESTIONS || f.questions().size() > MOST_QUESTIONS)
        throw new Unfit("form.tooMany", "most", Form.MOST_QUESTIONS);
      return f;
    } catch (ParseException | UnsupportedOperationException e) {
      throw new Unfit("form.notAForm", "why", "" + e.getMessage()).because(e);
    } catch (NumberFormatException e) {
      throw new Unfit("form.badNumber").because(e);
    }
  }
}
