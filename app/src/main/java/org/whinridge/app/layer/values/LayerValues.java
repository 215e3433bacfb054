package org.whinridge.app.layer.values;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.UUID;
import java.util.function.Function;
import org.springframework.stereotype.Service;
import org.whinridge.app.layer.Layer;
import org.whinridge.app.layer.LayerChanges;
import org.whinridge.app.layer.ReadModels;
import org.whinridge.app.shell.Refusal;
import org.whinridge.core.layer.Code;
import org.whinridge.core.layer.Field;
import org.whinridge.core.layer.FieldCheck;
import org.whinridge.core.layer.FieldType;
import org.whinridge.core.layer.Reading;
import org.whinridge.core.layer.Schema;
import org.whinridge.core.profile.CodeProposal;
import org.whinridge.core.profile.FieldProfile;
import org.whinridge.core.profile.NearDuplicates;
import org.whinridge.core.profile.Neediest;
import org.whinridge.core.profile.Split;
import org.whinridge.core.profile.TypeGuess;
import org.whinridge.core.read.LayerColumns;
import org.whinridge.core.rules.Condition;
import org.whinridge.core.said.Said;
import org.whinridge.core.value.Value;

/** The values of a field: what they look like, which are one, and tidying them. */
@Service
public class LayerValues {
  private static final int PREVIEW = 12;
  private final ReadModels models;
  private final LayerChanges changes;
  private final Spellings spellings;

  public LayerValues(ReadModels models, LayerChanges changes, Spellings spellings) {
    this.spellings = spellings;
    this.models = models;
    this.changes = changes;
  }

  /** A field of a layer. */
  public static Field field(Layer layer, String name) {
    return layer
        .schema()
        .field(name)
        .orElseThrow(() -> Refusal.notFound(Said.of("thing.fieldOf", "layer", layer.name())));
  }

  /** What a field's values look like. */
  public FieldProfile profile(Layer layer, Field field) {
    LayerColumns c = models.of(layer);
    return FieldProfile.of(field, c, c.all());
  }

  /**
   * A field in the list: how much of it is filled, what is doubtful.
   *
   * @param spellings values with unlike spellings; none while they are being looked for
   */
  record Overview(
      Field field,
      double filledShare,
      int misfits,
      Optional<Integer> spellings,
      List<Integer> bars) {
    /** The highest bar; 1 where there is none. */
    public int highest() {
      return bars.stream().mapToInt(Integer::intValue).max().orElse(1);
    }

    Neediest.Case needs() {
      return new Neediest.Case(field.name(), misfits, spellings.orElse(0));
    }
  }

  /** All fields, one profile in memory at a time. */
  List<Overview> overview(Layer layer) {
    LayerColumns c = models.of(layer);
    List<Overview> out = new ArrayList<>();
    for (Field f : layer.schema().fields()) {
      FieldProfile.Summary p = FieldProfile.summary(f, c, c.all());
      Optional<Integer> unlike =
          spellings
              .of(layer, f, p.distinct(), () -> FieldProfile.of(f, c, c.all()).values())
              .map(List::size);
      out.add(new Overview(f, p.filledShare(), p.misfits(), unlike, p.bars()));
    }
    return out;
  }

  /** Spellings of one value; none of them yet while they are being looked for. */
  public Optional<List<NearDuplicates.Group>> nearDuplicates(Layer layer, FieldProfile profile) {
    return spellings.of(layer, profile);
  }

  /** Says that the code list is right as it is: its codes are no spellings of one another. */
  LayerChanges.Done state(Layer layer, Field field, String person) {
    return rewrite(
        layer,
        "tidy",
        Said.of("ledger.listIsRight", "field", field.label()),
        person,
        Optional.of(with(layer.schema(), field.codesFound(false))),
        v -> v,
        field);
  }

  private static Schema with(Schema s, Field changed) {
    return new Schema(
        s.kind(),
        s.fields().stream().map(f -> f.name().equals(changed.name()) ? changed : f).toList(),
        s.tagField(),
        s.captionFields());
  }

  /** A list that was found follows: the spellings that are given up leave it. */
  private static Optional<Schema> follows(Layer layer, Field field, Set<String> from, Value to) {
    if (!field.codesFound()) return Optional.empty();
    List<Code> codes = new ArrayList<>();
    for (Code c : field.codes()) if (!from.contains(c.code())) codes.add(c);
    if (!to.isEmpty() && codes.stream().noneMatch(c -> c.code().equals(to.plain())))
      codes.add(Code.of(to.plain(), to.plain()));
    return Optional.of(with(layer.schema(), field.with(codes)));
  }

  /** The filter for features whose field has one of some values, as they are shown. */
  static String filter(Field f, List<String> values) {
    return Condition.isAnyOf(f.name(), values.stream().map(v -> typed(f, v)).toList()).text();
  }

  private static Value typed(Field f, String shown) {
    return f.type() == FieldType.CODES
        ? Value.many(Arrays.stream(shown.split(", ")).map(Value::text).toList())
        : Reading.PLAIN.read(Value.text(shown), f.type());
  }

  /** Makes several spellings one value, with an undo. */
  LayerChanges.Done merge(
      Layer layer, Field field, Set<String> spellings, String good, String person) {
    String clean = good.strip();
    Value to = clean.isEmpty() ? Value.EMPTY : Reading.PLAIN.read(Value.text(clean), field.type());
    FieldCheck.of(field.codesFound() ? field.with(List.of()) : field, to, Value.EMPTY)
        .ifPresent(
            fault -> {
              throw Refusal.refused(
                  "refused.valueNothingChanged", "field", field.label(), "why", fault.message());
            });
    if (field.unique() && !to.isEmpty())
      throw Refusal.refused("refused.uniqueSoSeveralCant", "label", field.label());
    Set<String> from = new LinkedHashSet<>(spellings);
    from.remove(to.plain());
    if (from.isEmpty()) throw Refusal.refused("refused.chooseSpelling", "value", clean);
    Said summary =
        Said.of(
            clean.isEmpty() ? "ledger.becomesEmpty" : "ledger.becomes",
            "field",
            field.label(),
            "from",
            said(from),
            "to",
            clean);
    return rewrite(
        layer,
        "tidy",
        summary,
        person,
        follows(layer, field, from, to),
        v -> replaced(v, from, to),
        field);
  }

  private static Said said(Set<String> from) {
    List<Said> all = from.stream().map(s -> Said.text("“" + s + "”")).toList();
    return Said.some(all, all.size() == 4 ? 4 : 3);
  }

  private static Value replaced(Value v, Set<String> from, Value to) {
    if (v instanceof Value.Many m) {
      Set<Value> out = new LinkedHashSet<>();
      for (Value x : m.values()) out.add(from.contains(x.plain()) ? to : x);
      out.remove(Value.EMPTY);
      return Value.many(List.copyOf(out));
    }
    return from.contains(v.plain()) ? to : v;
  }

  private LayerChanges.Done rewrite(
      Layer layer,
      String cause,
      Said summary,
      String person,
      Optional<Schema> schema,
      Function<Value, Value> change,
      Field field) {
    return act(
        layer,
        cause,
        summary,
        person,
        batch -> {
          schema.ifPresent(batch::schema);
          batch.each(
              f -> {
                Value was = f.value(field.name());
                Value now = was.isEmpty() ? was : change.apply(was);
                if (!now.equals(was))
                  batch.set(UUID.fromString(f.id()), Map.of(field.name(), now), Optional.empty());
              });
        });
  }

  private LayerChanges.Done act(
      Layer layer, String cause, Said summary, String person, LayerChanges.Act act) {
    try {
      return changes.writeAsShown(layer, cause, summary, person, act);
    } catch (RuntimeException e) {
      throw e;
    } catch (Exception e) {
      throw new IllegalStateException("tidying failed, nothing was changed", e);
    }
  }

  /**
   * Makes a code list of the values in use. Values left out stay as they are in the features that
   * have them; where codes are proposed, the chosen values are stored as their codes.
   */
  LayerChanges.Done makeCodeList(
      Layer layer, Field field, List<String> chosen, CodeProposal proposal, String person) {
    List<Code> codes = proposal.codes(chosen);
    if (codes.isEmpty()) throw Refusal.refused("refused.chooseValueForList");
    Map<String, String> codeOf = new LinkedHashMap<>();
    for (Code c : codes) codeOf.put(c.label(), c.code());
    FieldType type = field.type() == FieldType.TEXT ? FieldType.CODE : field.type();
    Schema after = with(layer.schema(), field.as(type).with(codes).codesFound(true));
    return rewrite(
        layer,
        "tidy",
        Said.of("ledger.listMade", "field", field.label(), "n", codes.size()),
        person,
        Optional.of(after),
        v ->
            codeOf.containsKey(v.plain().strip())
                ? Reading.PLAIN.read(Value.text(codeOf.get(v.plain().strip())), type)
                : v,
        field);
  }

  /** One text and its parts, for the preview of a split. */
  record SplitRow(String text, List<String> parts) {}

  /**
   * What a split would give.
   *
   * @param parts the most parts that a text has
   * @param unmatched texts that a pattern does not match, or that have fewer parts than most
   */
  record SplitPreview(
      int parts, int filled, int unmatched, List<SplitRow> rows, List<FieldType> types) {}

  /** Splits real values, without changing anything. */
  SplitPreview splitPreview(Layer layer, Field field, Split split) {
    LayerColumns c = models.of(layer);
    var column = c.column(field.name()).orElseThrow();
    List<SplitRow> rows = new ArrayList<>();
    List<TypeGuess> guesses = new ArrayList<>();
    int most = 0;
    int filled = 0;
    int unmatched = 0;
    for (int row = 0; row < c.rows(); row++) {
      Value v = c.has(row) ? column.value(row) : Value.EMPTY;
      if (v.isEmpty()) continue;
      filled++;
      List<String> parts = split.parts(v.plain());
      if (parts.isEmpty() || parts.size() == 1) unmatched++;
      most = Math.max(most, parts.size());
      while (guesses.size() < parts.size()) guesses.add(new TypeGuess());
      for (int i = 0; i < parts.size(); i++) guesses.get(i).see(Value.text(parts.get(i)));
      if (rows.size() < PREVIEW) rows.add(new SplitRow(v.plain(), parts));
    }
    return new SplitPreview(
        most, filled, unmatched, rows, guesses.stream().map(g -> plain(g.guess().type())).toList());
  }

  private static FieldType plain(FieldType t) {
    return t == FieldType.CODE ? FieldType.TEXT : t;
  }

  /** Splits a field into new ones with these labels; the field itself stays as it is. */
  LayerChanges.Done split(
      Layer layer, Field field, Split split, List<String> labels, String person) {
    SplitPreview preview = splitPreview(layer, field, split);
    if (preview.filled() <= preview.unmatched())
      throw Refusal.refused("refused.noneValuesSplitNothing");
    List<Field> fresh = new ArrayList<>();
    Set<String> names = new LinkedHashSet<>();
    layer.schema().fields().forEach(f -> names.add(f.name()));
    for (int i = 0; i < Math.min(labels.size(), preview.parts()); i++) {
      if (labels.get(i).isBlank()) {
        fresh.add(null);
        continue;
      }
      String name = Field.nameFrom(labels.get(i), names);
      names.add(name);
      fresh.add(Field.of(name, labels.get(i).strip(), preview.types().get(i)));
    }
    if (fresh.stream().allMatch(java.util.Objects::isNull))
      throw Refusal.refused("refused.nameAtLeastOne");
    List<Field> all = new ArrayList<>(layer.schema().fields());
    int at = all.indexOf(field) + 1;
    for (Field f : fresh) if (f != null) all.add(at++, f);
    Schema after =
        new Schema(
            layer.schema().kind(), all, layer.schema().tagField(), layer.schema().captionFields());
    return act(
        layer,
        "tidy",
        Said.of(
            "ledger.split",
            "field",
            field.label(),
            "into",
            String.join(
                ", ",
                fresh.stream().filter(java.util.Objects::nonNull).map(Field::label).toList())),
        person,
        batch -> {
          batch.schema(after);
          batch.each(
              f -> {
                Value v = f.value(field.name());
                if (v.isEmpty()) return;
                List<String> parts = split.parts(v.plain());
                Map<String, Value> set = new LinkedHashMap<>();
                for (int i = 0; i < Math.min(parts.size(), fresh.size()); i++)
                  if (fresh.get(i) != null && !parts.get(i).isEmpty())
                    set.put(
                        fresh.get(i).name(),
                        Reading.PLAIN.read(Value.text(parts.get(i)), fresh.get(i).type()));
                if (!set.isEmpty()) batch.set(UUID.fromString(f.id()), set, Optional.empty());
              });
        });
  }
}
