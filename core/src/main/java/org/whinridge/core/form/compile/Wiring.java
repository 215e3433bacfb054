package org.whinridge.core.form.compile;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.whinridge.core.form.Limits;
import org.whinridge.core.form.Question;
import org.whinridge.core.form.QuestionType;
import org.whinridge.core.layer.Code;
import org.whinridge.core.layer.Field;
import org.whinridge.core.layer.Schema;
import org.whinridge.core.said.Said;

/** Whether questions suit the fields that they write to, and their own settings each other. */
final class Wiring {
  private final Schema schema;
  private final Map<String, String> writers = new LinkedHashMap<>();

  Wiring(Schema schema) {
    this.schema = schema;
  }

  List<FormProblem> problems(Question q, boolean inList) {
    List<FormProblem> out = new ArrayList<>();
    if (!q.writesTo().isEmpty()) field(q, inList, out);
    if (q.need() == Question.Need.NEEDED && q.officeOnly())
      out.add(
          FormProblem.of(q.name(), FormPart.Kind.NEEDED, FormProblem.Reason.OFFICE_ONLY_NEEDED));
    if (q.type().hasCodes() && q.codes().isEmpty())
      out.add(FormProblem.of(q.name(), FormPart.Kind.CODES, FormProblem.Reason.NO_CODES));
    Limits l = q.limits();
    if (l.most() > 0 && l.least() > l.most())
      out.add(
          FormProblem.of(
              q.name(),
              FormPart.Kind.LEAST,
              FormProblem.Reason.LEAST_OVER_MOST,
              Said.number(l.least()),
              Said.number(l.most())));
    if (l.from().isPresent() && l.to().isPresent() && l.from().getAsDouble() > l.to().getAsDouble())
      out.add(FormProblem.of(q.name(), FormPart.Kind.RANGE, FormProblem.Reason.RANGE_TURNED));
    if (q.type() == QuestionType.LINK && q.wire().layer().isEmpty())
      out.add(FormProblem.of(q.name(), FormPart.Kind.LINK, FormProblem.Reason.LINK_UNSET));
    return out;
  }

  private void field(Question q, boolean inList, List<FormProblem> out) {
    Optional<Field> field = schema.field(q.writesTo());
    if (field.isEmpty()) {
      out.add(
          FormProblem.of(
              q.name(), FormPart.Kind.WRITES_TO, FormProblem.Reason.FIELD_UNKNOWN, q.writesTo()));
      return;
    }
    if (inList)
      out.add(FormProblem.of(q.name(), FormPart.Kind.WRITES_TO, FormProblem.Reason.FIELD_IN_LIST));
    String other = writers.put(q.writesTo(), q.name());
    if (other != null)
      out.add(
          FormProblem.of(
              q.name(),
              FormPart.Kind.WRITES_TO,
              FormProblem.Reason.FIELD_TAKEN,
              other,
              q.writesTo()));
    if (!FieldFit.fits(q, field.get(), schema))
      out.add(
          FormProblem.of(
              q.name(),
              FormPart.Kind.WRITES_TO,
              FormProblem.Reason.FIELD_OF_OTHER_TYPE,
              q.writesTo(),
              field.get().type().said()));
  }

  /** What may be meant, but is worth knowing: codes that question and field do not share. */
  List<FormProblem> notes(Question q) {
    Field field = schema.field(q.writesTo()).orElse(null);
    if (field != null && field.fillsItself() && !q.hand().readOnly())
      return List.of(
          FormProblem.of(
              q.name(),
              FormPart.Kind.WRITES_TO,
              FormProblem.Reason.FIELD_FILLS_ITSELF,
              field.name()));
    if (field == null || field.codes().isEmpty() || q.codes().isEmpty()) return List.of();
    List<FormProblem> out = new ArrayList<>();
    List<String> more = missing(q.codes(), field.codes());
    if (!more.isEmpty())
      out.add(
          FormProblem.of(
              q.name(),
              FormPart.Kind.CODES,
              FormProblem.Reason.CODES_NOT_IN_FIELD,
              field.name(),
              String.join(", ", more)));
    List<String> fewer = missing(field.codes(), q.codes());
    if (!fewer.isEmpty())
      out.add(
          FormProblem.of(
              q.name(),
              FormPart.Kind.CODES,
              FormProblem.Reason.CODES_NOT_OFFERED,
              String.join(", ", fewer)));
    return out;
  }

  private static List<String> missing(List<Code> codes, List<Code> in) {
    List<String> out = new ArrayList<>();
    for (Code c : codes)
      if (!c.retired() && in.stream().noneMatch(x -> x.code().equals(c.code()))) out.add(c.code());
    return out;
  }
}
