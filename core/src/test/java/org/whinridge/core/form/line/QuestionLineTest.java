package org.whinridge.core.form.line;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.util.ArrayList;
import java.util.List;
import java.util.OptionalDouble;
import java.util.Random;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.whinridge.core.form.Question.Need;
import org.whinridge.core.form.QuestionType;
import org.whinridge.core.layer.Code;
import org.whinridge.core.said.Unfit;

class QuestionLineTest {
  private static String shown(QuestionLine q) {
    StringBuilder b = new StringBuilder(q.type().id());
    if (!q.name().isEmpty()) b.append(" name=").append(q.name());
    if (!q.unit().isEmpty()) b.append(" in ").append(q.unit());
    if (q.decimals() >= 0) b.append(" .").append(q.decimals());
    if (q.from().isPresent()) b.append(" from ").append(q.from().getAsDouble());
    if (q.to().isPresent()) b.append(" to ").append(q.to().getAsDouble());
    if (q.step() > 0) b.append(" by ").append(q.step());
    if (q.least() > 0) b.append(" least ").append(q.least());
    if (q.most() > 0) b.append(" most ").append(q.most());
    if (q.need() != Need.FREE) b.append(' ').append(q.need().id());
    if (!q.hint().isEmpty()) b.append(" hint ").append(q.hint());
    for (Code c : q.codes()) b.append(' ').append(c.code()).append('=').append(c.label());
    return q.label() + ": " + b;
  }

  @ParameterizedTest
  @CsvSource(
      delimiter = '\t',
      quoteCharacter = '~',
      value = {
        "Silt depth (mm) 0..500 *\tSilt depth: whole in mm from 0.0 to 500.0 needed",
        "Lining: brick | timber | clay\tLining: choice brick=brick timber=timber clay=clay",
        "Lining: 1 = brick | 2 = timber\tLining: choice 1=brick 2=timber",
        "Defects: + crack | leak | scour\tDefects: choices crack=crack leak=leak scour=scour",
        "Photo of the outfall x1..3\tPhoto of the outfall: photo least 1 most 3",
        "Silt depth {silt}\tSilt depth: text name=silt",
        "Silt depth {silt} (mm) 0..500 (*)\tSilt depth: whole name=silt in mm from 0.0 to 500.0 wanted",
        "Width 0.00..5.00\tWidth: decimal .2 from 0.0 to 5.0",
        "Width (m)\tWidth: decimal in m",
        "Level −2.5..\tLevel: decimal .1 from -2.5",
        "Steps ..40 by 2\tSteps: whole to 40.0 by 2.0",
        "Condition: 1 = very good < 2 = good < 3 = poor\tCondition: grade 1=very good 2=good 3=poor",
        "Which first: ranked weir | sluice\tWhich first: ranked weir=weir sluice=sluice",
        "Notes: long text ..2000 // what the code list can't say\tNotes: long_text most 2000 hint what the code list can't say",
        "Locked?: yes/no *\tLocked?: yes_no needed",
        "Is it locked? *\tIs it locked?: text needed",
        "Seen on: date\tSeen on: date",
        "Seen at: date and time\tSeen at: date_time",
        "Gauge time: time\tGauge time: time",
        "Time spent: minutes ..480\tTime spent: duration to 480.0",
        "Fish: counter 0..99\tFish: counter from 0.0 to 99.0",
        "Inlet: point\tInlet: point",
        "Bank: line\tBank: line",
        "Wet area: area\tWet area: area",
        "Photos\tPhotos: photo",
        "Sketch of the crack: sketch x..2\tSketch of the crack: sketch most 2",
        "Seen by: signature *\tSeen by: signature needed",
        "Pump: sound\tPump: sound",
        "Report: file x1\tReport: file least 1 most 1",
        "Tag: tag\tTag: tag",
        "Outfall: link\tOutfall: link",
        "> Mind: the current is strong.\tMind: the current is strong.: read",
        "Sign: picture\tSign: picture",
        "Depth (approx)\tDepth (approx): text",
        "Depth (approx) 0..5\tDepth: whole in approx from 0.0 to 5.0",
        "Flow: decimal .000 0..2\tFlow: decimal .3 from 0.0 to 2.0",
        "Gate opens 10:30 \\*\tGate opens 10:30 *: text",
        "A \\| b: text | x\tA | b: choice text=text x=x",
        "Key \\= value\tKey = value: text",
        "Note …\tNote: text",
        "Bed: choice mud\tBed: choice mud=mud",
      })
  void aLineSaysAQuestion(String line, String said) {
    assertThat(shown(QuestionLine.read(line))).isEqualTo(said);
  }

  @ParameterizedTest
  @CsvSource(
      delimiter = '\t',
      value = {
        "*\tline.noLabel",
        ": a | b\tline.noLabel",
        "Lining:\tline.nothingAfterColon",
        "Lining: bricks\tline.noKind",
        "Lining: a || b\tline.emptyCode",
        "Lining: a | b | a\tline.codeTwice",
        "Depth 5..1\tline.backwards",
        "Photo x3..1\tline.backwards",
        "Depth {2nd}\tform.nameSigns",
        "Depth {place}\tform.nameTaken",
        "Depth {name\tline.openName",
        "Seen on: date 5\tline.notUnderstood",
        "Notes: text ..2.5\tline.notUnderstood",
        "Notes: text ..2000000\tform.leastMost",
      })
  void whatCantBeReadIsSaid(String line, String key) {
    assertThatThrownBy(() -> QuestionLine.read(line))
        .isInstanceOfSatisfying(
            IllegalArgumentException.class, e -> assertThat(Unfit.said(e).key()).isEqualTo(key));
  }

  /** Seeded: whatever a question says, its line says the same again. */
  @Test
  void aLineReadsBackAsWhatWasWritten() {
    Random r = new Random(20261130);
    for (int i = 0; i < 4000; i++) {
      QuestionLine q = any(r);
      String line = q.write();
      assertThat(QuestionLine.read(line)).as(line).isEqualTo(q);
      assertThat(QuestionLine.read(line).write()).isEqualTo(line);
    }
  }

  /** Seeded: no line fails in another way than by words. */
  @Test
  void anyTextIsReadOrRefusedInWords() {
    Random r = new Random(7);
    String signs = "ab 1.5:|=<{}*#>()x./\\+-…\u2212by ";
    for (int i = 0; i < 20_000; i++) {
      StringBuilder b = new StringBuilder();
      int n = r.nextInt(24);
      for (int k = 0; k < n; k++) b.append(signs.charAt(r.nextInt(signs.length())));
      try {
        String again = QuestionLine.read(b.toString()).write();
        assertThat(QuestionLine.read(again).write()).as(b.toString()).isEqualTo(again);
      } catch (IllegalArgumentException e) {
        assertThat(Unfit.said(e).key()).as(b.toString()).contains(".");
      }
    }
  }

  private static final String[] WORDS = {
    "Silt", "depth", "(mm)", "x1..3", "0..5", "a|b", "*", "(*)", "why?", "5:30", "note:", "{it}",
    "yes/no", "text", "choice", "= 1", "<", "#1", "> 3", "//", "…", "Grün", "+", "by 2", "\\",
    "photo"
  };

  private static String words(Random r, int most) {
    List<String> out = new ArrayList<>();
    int n = 1 + r.nextInt(most);
    for (int i = 0; i < n; i++) out.add(WORDS[r.nextInt(WORDS.length)]);
    return String.join(" ", out);
  }

  static QuestionLine any(Random r) {
    QuestionType type = QuestionType.values()[r.nextInt(QuestionType.values().length)];
    boolean number =
        type.isWhole() || type == QuestionType.DECIMAL || type == QuestionType.DURATION;
    boolean counts = type.isMedia() || type == QuestionType.TEXT || type == QuestionType.LONG_TEXT;
    boolean unit = type.isWhole() || type == QuestionType.DECIMAL;
    int decimals = type == QuestionType.DECIMAL ? r.nextInt(5) - 1 : -1;
    double from =
        Math.round(r.nextDouble() * 1000) / Math.pow(10, type.isWhole() ? 0 : r.nextInt(4));
    int least = counts && r.nextBoolean() ? r.nextInt(4) : 0;
    List<Code> codes = new ArrayList<>();
    if (type.hasCodes())
      for (int i = r.nextInt(5); i > 0; i--) {
        String code = words(r, 2) + i;
        codes.add(Code.of(code, r.nextBoolean() ? code : words(r, 3)));
      }
    return new QuestionLine(
        words(r, 4),
        r.nextBoolean() ? "" : "name_" + r.nextInt(9),
        type,
        unit && r.nextBoolean() ? "m/s" : "",
        decimals,
        number && r.nextBoolean() ? OptionalDouble.of(-from) : OptionalDouble.empty(),
        number && r.nextBoolean() ? OptionalDouble.of(from) : OptionalDouble.empty(),
        0,
        least,
        counts && r.nextBoolean() ? least + r.nextInt(3) : 0,
        Need.values()[r.nextInt(3)],
        r.nextInt(3) == 0 ? words(r, 5) : "",
        codes);
  }
}
