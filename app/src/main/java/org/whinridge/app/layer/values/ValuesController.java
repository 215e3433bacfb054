package org.whinridge.app.layer.values;

import jakarta.validation.Valid;
import jakarta.validation.constraints.NotNull;
import java.security.Principal;
import java.time.Instant;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.UUID;
import org.springframework.stereotype.Controller;
import org.springframework.ui.Model;
import org.springframework.util.MultiValueMap;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.ModelAttribute;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.servlet.mvc.support.RedirectAttributes;
import org.whinridge.app.layer.Layer;
import org.whinridge.app.layer.LayerChanges;
import org.whinridge.app.layer.Layers;
import org.whinridge.app.project.DeskPage;
import org.whinridge.app.project.Project;
import org.whinridge.app.shell.Needs;
import org.whinridge.app.shell.Refusal;
import org.whinridge.core.access.Right;
import org.whinridge.core.layer.Field;
import org.whinridge.core.layer.FieldType;
import org.whinridge.core.profile.CodeProposal;
import org.whinridge.core.profile.FieldProfile;
import org.whinridge.core.profile.NearDuplicates;
import org.whinridge.core.profile.Neediest;
import org.whinridge.core.profile.NumberProfile;
import org.whinridge.core.profile.Split;
import org.whinridge.core.profile.ValueCount;
import org.whinridge.core.rules.Condition;
import org.whinridge.core.said.Said;
import org.whinridge.core.text.Numbers;
import org.whinridge.core.value.Value;
import org.whinridge.core.value.ValueJson;

/** The page of a layer's values: profile, tidy, code list, split. */
@Controller
class ValuesController {
  private static final int MOST_SHOWN = 300;
  private static final int MOST_LISTED = 200;
  private static final int GROUPS_A_PAGE = 25;
  private final DeskPage desk;
  private final Layers layers;
  private final LayerValues values;

  ValuesController(DeskPage desk, Layers layers, LayerValues values) {
    this.desk = desk;
    this.layers = layers;
    this.values = values;
  }

  /** A near-duplicate group with the filter that finds its features. */
  record Group(List<Spelling> spellings, String good, String filter, int touched) {}

  /** One spelling; {@code visible} shows the blanks that nobody would see. */
  record Spelling(String value, String visible, int count, Said why) {}

  /** A bar of the histogram, its height in per cent of the highest. */
  record Bar(Said from, Said to, int count, double height) {}

  /**
   * A text with its unseen signs as marks: blanks at its ends and doubled ones, no-break spaces
   * (⍽), signs that take no room (¦), accents that are signs of their own (after a ◌).
   */
  static String visible(String s) {
    StringBuilder out = new StringBuilder();
    for (char c : blanks(s).toCharArray()) {
      if (Character.isSpaceChar(c) && c != ' ') out.append('⍽');
      else if (Character.getType(c) == Character.FORMAT) out.append('¦');
      else if (Character.getType(c) == Character.NON_SPACING_MARK) out.append('◌').append(c);
      else out.append(c);
    }
    return out.toString();
  }

  private static String blanks(String s) {
    String t = s.strip();
    int from = s.indexOf(t.isEmpty() ? s : t);
    return "·".repeat(Math.max(0, from))
        + t.replace("  ", "··").replace("\t", "»")
        + "·".repeat(Math.max(0, s.length() - from - t.length()));
  }

  /** One of the values, with the filter that finds its features. */
  record Shown(String value, Said visible, String label, int count, String filter) {}

  @Needs(Right.SEE_REGISTER)
  @GetMapping("/p/{project}/layers/{id}/values")
  String page(
      @PathVariable String project,
      @PathVariable UUID id,
      @RequestParam(defaultValue = "") String field,
      @RequestParam(defaultValue = "") String separator,
      @RequestParam(defaultValue = "") String pattern,
      @RequestParam(defaultValue = "1") int groups,
      Model model) {
    Project p = desk.open(project, "layers", model);
    Layer layer = layers.get(p.id(), id);
    model.addAttribute("layer", layer);
    List<LayerValues.Overview> overview = values.overview(layer);
    model.addAttribute("overview", overview);
    String wanted = field;
    if (field.isEmpty()) {
      Optional<Neediest.Case> needs =
          Neediest.of(overview.stream().map(LayerValues.Overview::needs).toList());
      if (needs.isEmpty()) return "values";
      model.addAttribute("needs", needs.get());
      wanted = needs.get().field();
    }
    Field f = LayerValues.field(layer, wanted);
    FieldProfile profile = values.profile(layer, f);
    model.addAttribute("profile", profile);
    model.addAttribute(
        "shown", profile.values().stream().limit(MOST_SHOWN).map(v -> shown(f, v)).toList());
    boolean listable = f.type() == FieldType.TEXT || f.type() == FieldType.WHOLE;
    model.addAttribute(
        "mayList",
        listable
            && f.codes().isEmpty()
            && profile.filled() > 0
            && profile.distinct() <= MOST_LISTED);
    Optional<List<NearDuplicates.Group>> found = values.nearDuplicates(layer, profile);
    model.addAttribute("comparing", found.isEmpty());
    int all = found.map(List::size).orElse(0);
    int page = Math.max(1, Math.min(groups, (all + GROUPS_A_PAGE - 1) / GROUPS_A_PAGE));
    model.addAttribute("groupCount", all);
    model.addAttribute("groupPage", page);
    model.addAttribute("groupPages", (all + GROUPS_A_PAGE - 1) / GROUPS_A_PAGE);
    model.addAttribute(
        "groups",
        found.orElse(List.of()).stream()
            .skip((page - 1L) * GROUPS_A_PAGE)
            .limit(GROUPS_A_PAGE)
            .map(g -> group(f, g))
            .toList());
    profile.numbers().ifPresent(n -> numbers(f, n, model));
    model.addAttribute("proposals", CodeProposal.values());
    model.addAttribute("separator", separator);
    model.addAttribute("pattern", pattern);
    if (!separator.isEmpty() || !pattern.isEmpty())
      try {
        model.addAttribute("split", values.splitPreview(layer, f, split(separator, pattern)));
      } catch (IllegalArgumentException e) {
        model.addAttribute("splitProblem", Refusal.said(e));
      }
    return "values";
  }

  private static Shown shown(Field f, ValueCount v) {
    return new Shown(
        v.value(),
        told(f, v.value()),
        f.labelOf(org.whinridge.core.value.Value.text(v.value())),
        v.count(),
        LayerValues.filter(f, List.of(v.value())));
  }

  /** A number or a day in the reader's style, a text with its unseen signs as marks. */
  private static Said told(Field f, String value) {
    Value v = ValueJson.readText(value, f.type().valueType());
    return v instanceof Value.Text || v.isEmpty() ? Said.text(visible(value)) : v.said();
  }

  private static Group group(Field f, NearDuplicates.Group g) {
    List<String> spellings = g.values().stream().map(ValueCount::value).toList();
    int touched = g.values().stream().skip(1).mapToInt(ValueCount::count).sum();
    List<Spelling> shown = new ArrayList<>();
    for (int i = 0; i < spellings.size(); i++)
      shown.add(
          new Spelling(
              spellings.get(i),
              visible(spellings.get(i)),
              g.values().get(i).count(),
              i == 0 ? Said.NONE : g.why().get(i - 1)));
    return new Group(shown, g.good(), LayerValues.filter(f, spellings), touched);
  }

  private static void numbers(Field f, NumberProfile n, Model model) {
    int most = n.histogram().stream().mapToInt(NumberProfile.Bin::count).max().orElse(1);
    model.addAttribute(
        "bars",
        n.histogram().stream()
            .map(
                b ->
                    new Bar(
                        shown(f, b.from()), shown(f, b.to()), b.count(), 100.0 * b.count() / most))
            .toList());
    model.addAttribute("highest", most);
    Map<String, Said> facts = new LinkedHashMap<>();
    facts.put("least", shown(f, n.least()));
    facts.put("firstQuarter", shown(f, n.firstQuartile()));
    facts.put("middle", shown(f, n.median()));
    facts.put("lastQuarter", shown(f, n.thirdQuartile()));
    facts.put("greatest", shown(f, n.greatest()));
    if (f.type() == FieldType.WHOLE || f.type() == FieldType.DECIMAL)
      facts.put("mean", shown(f, n.mean()));
    model.addAttribute("facts", facts);
    model.addAttribute("lowFence", shown(f, n.lowFence()));
    model.addAttribute("highFence", shown(f, n.highFence()));
    boolean number = f.type() == FieldType.WHOLE || f.type() == FieldType.DECIMAL;
    model.addAttribute(
        "outlierFilter",
        number ? Condition.isOutside(f.name(), n.lowFence(), n.highFence()).text() : "");
  }

  private static Said shown(Field f, double d) {
    if (f.type() == FieldType.DATE) return Said.day(LocalDate.ofEpochDay(Math.round(d)));
    if (f.type() == FieldType.DATE_TIME) return Said.moment(Instant.ofEpochMilli(Math.round(d)));
    return org.whinridge.core.layer.Shown.of(
        Value.of(Numbers.round(d, 3)), List.of(), -1, f.unit());
  }

  private static Split split(String separator, String pattern) {
    return pattern.isEmpty() ? Split.at(separator) : Split.by(pattern);
  }

  /**
   * The field that an act is about, out of the address, and the state of the layer that the person
   * saw, out of the form.
   */
  record FieldSeen(String project, UUID id, String field, @NotNull Long seen) {}

  /** What is done to the values of a field. */
  private interface Act {
    LayerChanges.Done on(Layer layer, Field field);
  }

  private String done(FieldSeen of, Model model, RedirectAttributes flash, Act act) {
    Layer layer = layers.get(desk.open(of.project, "layers", model).id(), of.id).asSeen(of.seen);
    try {
      LayerChanges.Done d = act.on(layer, LayerValues.field(layer, of.field));
      flash.addFlashAttribute(
          "done", Said.of("told.changedFeatures", "summary", d.summary(), "n", d.changed()));
      flash.addFlashAttribute("act", d.group());
    } catch (Refusal e) {
      flash.addFlashAttribute("problem", e.said());
    } catch (IllegalArgumentException e) {
      flash.addFlashAttribute("problem", Said.of("told.cantBeDoneNothing", "why", Refusal.said(e)));
    }
    return "redirect:/p/" + of.project + "/layers/" + of.id + "/values?field=" + of.field;
  }

  @Needs(Right.CHANGE_LAYERS)
  @PostMapping("/p/{project}/layers/{id}/values/{field}/merge")
  String merge(
      @Valid @ModelAttribute FieldSeen of,
      @RequestParam MultiValueMap<String, String> form,
      @RequestParam(defaultValue = "") String good,
      @RequestParam(defaultValue = "") String own,
      Principal person,
      Model model,
      RedirectAttributes flash) {
    return done(
        of,
        model,
        flash,
        (layer, field) ->
            values.merge(
                layer,
                field,
                new LinkedHashSet<>(all(form, "spelling")),
                own.isBlank() ? good : own,
                person.getName()));
  }

  @Needs(Right.CHANGE_LAYERS)
  @PostMapping("/p/{project}/layers/{id}/values/{field}/codes")
  String codes(
      @Valid @ModelAttribute FieldSeen of,
      @RequestParam MultiValueMap<String, String> form,
      @RequestParam(defaultValue = "SAME") CodeProposal proposal,
      Principal person,
      Model model,
      RedirectAttributes flash) {
    return done(
        of,
        model,
        flash,
        (layer, field) ->
            values.makeCodeList(layer, field, all(form, "value"), proposal, person.getName()));
  }

  /** Says that a code list made from the values in use is right. */
  @Needs(Right.CHANGE_LAYERS)
  @PostMapping("/p/{project}/layers/{id}/values/{field}/state")
  String state(
      @Valid @ModelAttribute FieldSeen of,
      Principal person,
      Model model,
      RedirectAttributes flash) {
    return done(of, model, flash, (layer, field) -> values.state(layer, field, person.getName()));
  }

  @Needs(Right.CHANGE_LAYERS)
  @PostMapping("/p/{project}/layers/{id}/values/{field}/split")
  String split(
      @Valid @ModelAttribute FieldSeen of,
      @RequestParam(defaultValue = "") String separator,
      @RequestParam(defaultValue = "") String pattern,
      @RequestParam MultiValueMap<String, String> form,
      Principal person,
      Model model,
      RedirectAttributes flash) {
    return done(
        of,
        model,
        flash,
        (layer, field) ->
            values.split(
                layer, field, split(separator, pattern), all(form, "part"), person.getName()));
  }

  /** All values of one name: a list of Spring's would be cut at each comma in a single one. */
  private static List<String> all(MultiValueMap<String, String> form, String name) {
    return form.getOrDefault(name, List.of());
  }
}
