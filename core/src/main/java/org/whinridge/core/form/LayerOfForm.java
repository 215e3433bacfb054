package org.whinridge.core.form;

import java.util.ArrayList;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.TreeSet;
import org.whinridge.core.layer.Code;
import org.whinridge.core.layer.Field;
import org.whinridge.core.layer.FieldType;
import org.whinridge.core.layer.Schema;
import org.whinridge.core.layer.Start;
import org.whinridge.core.place.GeometryKind;
import org.whinridge.core.prefill.Source;

/**
 * The layer that a form begun without one makes: a field for each question that has one answer, its
 * code lists, and the kind of its features from the first question that asks for a position. What
 * stands in lists, files, sketches and signatures stays on the visit. In the same way a layer that
 * is there gets fields for questions that have none.
 *
 * @param schema of the layer
 * @param form with each such question writing to its field; the position question that gave the
 *     kind is gone, since the visit's own place stands for it
 * @param position the label of that question; "" for none
 * @param onVisit labels of the questions whose answers stay on the visit, in the order of the sheet
 */
public record LayerOfForm(Schema schema, Form form, String position, List<String> onVisit) {
  private static final int MOST_CAPTIONS = 2;

  /** No fields, no places: what a form has before its layer is made. */
  public static final Schema NONE = new Schema(GeometryKind.TABLE, List.of(), "", List.of());

  public LayerOfForm {
    onVisit = List.copyOf(onVisit);
  }

  /** What a form would make. */
  public static LayerOfForm of(Form form) {
    Optional<Question> position = position(form);
    Form asked = position.map(p -> without(form, p)).orElse(form);
    Set<String> names = new LinkedHashSet<>();
    for (Question q : candidates(asked)) names.add(q.name());
    LayerOfForm made = adding(asked, new Schema(kind(position), List.of(), "", List.of()), names);
    List<Field> fields = made.schema.fields();
    String tag = tag(form, fields);
    return new LayerOfForm(
        new Schema(kind(position), fields, tag, captions(form, fields, tag)),
        made.form,
        position.map(Question::label).orElse(""),
        made.onVisit);
  }

  /** The questions that a field could be made for and that write to none, in order. */
  public static List<Question> candidates(Form form) {
    List<Question> out = new ArrayList<>();
    for (Section s : form.sections())
      if (!s.isList())
        for (Question q : s.questions()) if (q.writesTo().isEmpty() && hasField(q)) out.add(q);
    return out;
  }

  /**
   * A form, and a layer with fields for some of its questions.
   *
   * @param names of questions; those that are no {@link #candidates} are passed over
   */
  public static LayerOfForm adding(Form form, Schema to, Set<String> names) {
    List<Field> fields = new ArrayList<>(to.fields());
    Set<String> taken = new TreeSet<>();
    taken.add("place");
    for (Field f : fields) taken.add(f.name());
    List<String> onVisit = new ArrayList<>();
    List<Section> sections = new ArrayList<>();
    for (Section s : form.sections()) {
      List<Question> out = new ArrayList<>();
      for (Question q : s.questions()) {
        boolean gets = !s.isList() && q.writesTo().isEmpty() && hasField(q);
        if (!gets || !names.contains(q.name())) {
          if (q.type().hasAnswer() && q.writesTo().isEmpty()) onVisit.add(q.label());
          out.add(q);
          continue;
        }
        String name = taken.contains(q.name()) ? Field.nameFrom(q.label(), taken) : q.name();
        taken.add(name);
        fields.add(field(q, name));
        Question writing = q.writingTo(name);
        out.add(
            q.prefill().isEmpty() && !q.isWorkedOut()
                ? writing.beginningWith(List.of(new Source.Asset()))
                : writing);
      }
      sections.add(s.with(out));
    }
    return new LayerOfForm(
        new Schema(to.kind(), fields, to.tagField(), to.captionFields()),
        form.with(sections),
        "",
        onVisit);
  }

  private static Optional<Question> position(Form form) {
    for (Section s : form.sections())
      if (!s.isList()) for (Question q : s.questions()) if (isPlace(q)) return Optional.of(q);
    return Optional.empty();
  }

  private static Form without(Form form, Question gone) {
    return form.with(
        form.sections().stream()
            .map(s -> s.with(s.questions().stream().filter(q -> q != gone).toList()))
            .toList());
  }

  private static boolean isPlace(Question q) {
    return q.type() == QuestionType.POINT
        || q.type() == QuestionType.LINE
        || q.type() == QuestionType.AREA;
  }

  private static boolean hasField(Question q) {
    return q.type().hasAnswer() && !q.type().isMedia() && !isPlace(q);
  }

  private static GeometryKind kind(Optional<Question> position) {
    if (position.isEmpty()) return GeometryKind.TABLE;
    QuestionType t = position.get().type();
    if (t == QuestionType.POINT) return GeometryKind.POINT;
    return t == QuestionType.LINE ? GeometryKind.LINE : GeometryKind.POLYGON;
  }

  private static FieldType type(Question q) {
    switch (q.type()) {
      case WHOLE:
      case COUNTER:
        return FieldType.WHOLE;
      case DECIMAL:
      case DURATION:
        return FieldType.DECIMAL;
      case YES_NO:
        return FieldType.YES_NO;
      case CHOICE:
      case GRADE:
        return FieldType.CODE;
      case CHOICES:
      case RANKED:
        return FieldType.CODES;
      case DATE:
        return FieldType.DATE;
      case TIME:
        return FieldType.TIME;
      case DATE_TIME:
        return FieldType.DATE_TIME;
      default:
        return FieldType.TEXT;
    }
  }

  private static Field field(Question q, String name) {
    List<Code> codes = new ArrayList<>();
    // what fits when is a rule of the form; a layer has no answers to ask
    for (Code c : q.codes())
      codes.add(new Code(c.code(), c.label(), c.retired(), "", c.alone(), c.labels(), ""));
    return new Field(
        name,
        q.label(),
        type(q),
        0,
        q.type() == QuestionType.DURATION ? "min" : q.unit(),
        true,
        q.wire().unique(),
        codes,
        q.officeOnly(),
        q.decimals(),
        Start.NOTHING,
        q.hint(),
        Optional.empty(),
        false,
        false);
  }

  /** What is scanned names the thing; else what must not be given twice. */
  private static String tag(Form form, List<Field> fields) {
    for (Question q : form.questions())
      if (q.type() == QuestionType.TAG)
        for (Field f : fields) if (f.name().equals(q.name())) return f.name();
    for (Field f : fields) if (f.unique()) return f.name();
    return "";
  }

  private static List<String> captions(Form form, List<Field> fields, String tag) {
    Set<String> out = new LinkedHashSet<>();
    for (Field f : fields) if (form.settings().caption().contains(f.name())) out.add(f.name());
    if (out.isEmpty() && !tag.isEmpty()) out.add(tag);
    for (Field f : fields)
      if (out.size() < MOST_CAPTIONS && (f.type() == FieldType.TEXT || f.type() == FieldType.CODE))
        out.add(f.name());
    return List.copyOf(out);
  }
}
