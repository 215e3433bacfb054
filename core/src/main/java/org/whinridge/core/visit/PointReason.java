package org.whinridge.core.visit;

import java.util.Locale;
import org.whinridge.core.place.GeometryKind;
import org.whinridge.core.said.Said;
import org.whinridge.core.text.Numbers;
import org.whinridge.core.value.Value;

/**
 * Why something is open on a sheet: each reason with what was expected, what was found and what
 * mends it, as far as it has them; nothing where it has none. All reasons there are stand here.
 */
public sealed interface PointReason {
  /** The code of a reason, and the part of a question that a dry run counts it under. */
  enum Code {
    NEEDED("needed"),
    WANTED("wanted"),
    TYPE("type"),
    WHOLE("type"),
    TIME("type"),
    RANGE("limits"),
    STEP("limits"),
    NEGATIVE("limits"),
    LEAST("limits"),
    LENGTH("limits"),
    MOST("limits"),
    SHAPE("limits"),
    VALID("limits"),
    CODE("codes"),
    FITS("codes"),
    ALONE("codes"),
    UNIQUE("unique"),
    FINITE("formula"),
    CHECK("check"),
    STATE("rows"),
    PLACE("place"),
    OUTSIDE("allowed area"),
    INACCURATE("accuracy");
    private final String part;

    Code(String part) {
      this.part = part;
    }

    /** The word in data. */
    public String id() {
      return name().toLowerCase(Locale.ROOT);
    }

    /** The part of a question that a dry run counts it under. */
    String part() {
      return part;
    }

    /** Whether the answer is none that the question can have, whatever else it is. */
    boolean isMisfit() {
      return part.equals("type") || part.equals("codes");
    }
  }

  /** Which reason it is. */
  Code code();

  /** What tells two points of one reason and one question apart, such as the code; "" for one. */
  default String detail() {
    return "";
  }

  /** What it is, to be told to whoever fills the sheet. */
  Said message();

  /** What the form asks for; nothing when that is no one thing. */
  default Said expected() {
    return Said.NONE;
  }

  /** What stands there, as it stands; "" when nothing does. */
  default String found() {
    return "";
  }

  /** What mends it; nothing when the message says all there is to say. */
  default Said cure() {
    return Said.NONE;
  }

  /**
   * No answer where one is needed; {@code least} of what is collected, nothing for a plain answer.
   */
  record Needed(Said least) implements PointReason {
    @Override
    public Code code() {
      return Code.NEEDED;
    }

    @Override
    public Said message() {
      return least.isEmpty() ? Said.of("point.needed") : expected();
    }

    @Override
    public Said expected() {
      return least.isEmpty() ? Said.of("point.anAnswer") : Said.of("point.atLeast", "what", least);
    }
  }

  /** No answer where one is wanted. */
  record Wanted() implements PointReason {
    @Override
    public Code code() {
      return Code.WANTED;
    }

    @Override
    public Said message() {
      return Said.of("point.wanted");
    }
  }

  /** Another kind of value than the question's. */
  record WrongType(Value value, Said expected) implements PointReason {
    @Override
    public String found() {
      return value.plain();
    }

    @Override
    public Code code() {
      return Code.TYPE;
    }

    @Override
    public Said message() {
      return Said.of("point.isNot", "found", value.said(), "expected", expected);
    }
  }

  /** A number with a fraction where whole ones are asked for. */
  record NotWhole(String found) implements PointReason {
    @Override
    public Code code() {
      return Code.WHOLE;
    }

    @Override
    public Said message() {
      return Said.of("point.notWhole", "found", Said.number(found));
    }

    @Override
    public Said expected() {
      return Said.of("point.wholeNumber");
    }
  }

  /** Not a time of day. */
  record NoTime(String found) implements PointReason {
    @Override
    public Code code() {
      return Code.TIME;
    }

    @Override
    public Said message() {
      return Said.of("point.noTime", "found", found);
    }

    @Override
    public Said expected() {
      return Said.of("point.hoursAndMinutes");
    }
  }

  /** A number outside of its range; the unit stands in {@code expected}. */
  record OutOfRange(Said expected, String found) implements PointReason {
    @Override
    public Code code() {
      return Code.RANGE;
    }

    @Override
    public Said message() {
      return expected;
    }
  }

  /** A number between the steps. */
  record OffStep(Said step, double value) implements PointReason {
    @Override
    public Code code() {
      return Code.STEP;
    }

    @Override
    public Said message() {
      return Said.of("point.offStep", "expected", expected(), "found", Said.number(value));
    }

    @Override
    public Said expected() {
      return Said.of("point.inSteps", "step", step);
    }

    @Override
    public String found() {
      return Numbers.plain(value);
    }
  }

  /** Less than nothing of what is counted. */
  record Negative(String found) implements PointReason {
    @Override
    public Code code() {
      return Code.NEGATIVE;
    }

    @Override
    public Said message() {
      return Said.of("point.negative");
    }

    @Override
    public Said expected() {
      return Said.of("point.atLeast", "what", Said.number(0));
    }
  }

  /** A text of too few characters. */
  record TooShort(int least, int has) implements PointReason {
    @Override
    public Code code() {
      return Code.LEAST;
    }

    @Override
    public Said message() {
      return Said.of("point.length", "expected", expected(), "n", has);
    }

    @Override
    public Said expected() {
      return Said.of("point.leastCharacters", "n", least);
    }

    @Override
    public String found() {
      return String.valueOf(has);
    }
  }

  /** A text of too many characters, for the question or for the field that it writes to. */
  record TooLong(int most, int has) implements PointReason {
    @Override
    public Code code() {
      return Code.LENGTH;
    }

    @Override
    public Said message() {
      return Said.of("point.length", "expected", expected(), "n", has);
    }

    @Override
    public Said expected() {
      return Said.of("point.mostCharacters", "n", most);
    }

    @Override
    public String found() {
      return String.valueOf(has);
    }
  }

  /** Fewer answers, photos or rows than the least; {@code least} is counted, "2 photos". */
  record TooFew(Said least) implements PointReason {
    @Override
    public Code code() {
      return Code.LEAST;
    }

    @Override
    public Said message() {
      return Said.of("point.atLeast", "what", least);
    }

    @Override
    public Said expected() {
      return message();
    }
  }

  /** More answers, photos or rows than the most; {@code most} is counted, "2 photos". */
  record TooMany(Said most) implements PointReason {
    @Override
    public Code code() {
      return Code.MOST;
    }

    @Override
    public Said message() {
      return Said.of("point.atMost", "what", most);
    }

    @Override
    public Said expected() {
      return message();
    }
  }

  /** A shape of another dimension; {@code expected} is "a point", "a line" or "an area". */
  record OtherShape(Said expected) implements PointReason {
    @Override
    public Code code() {
      return Code.SHAPE;
    }

    @Override
    public Said message() {
      return Said.of("point.otherShape", "expected", expected);
    }
  }

  /** A drawing that crosses itself. */
  record CrossesItself() implements PointReason {
    @Override
    public Code code() {
      return Code.VALID;
    }

    @Override
    public Said message() {
      return Said.of("point.crosses", "cure", cure());
    }

    @Override
    public Said cure() {
      return Said.of("point.drawAgain");
    }
  }

  /** A code that the list does not have. */
  record NotInList(String found) implements PointReason {
    @Override
    public Code code() {
      return Code.CODE;
    }

    @Override
    public Said message() {
      return Said.of("point.notInList", "found", found, "cure", cure());
    }

    @Override
    public Said cure() {
      return Said.of("point.chooseOne");
    }
  }

  /** A code that is not offered under the other answers. */
  record DoesNotFit(String detailCode, String label, Said when) implements PointReason {
    @Override
    public Code code() {
      return Code.FITS;
    }

    @Override
    public String detail() {
      return ":" + detailCode;
    }

    @Override
    public Said message() {
      return Said.of("point.doesNotFit", "label", label, "when", when);
    }

    @Override
    public Said expected() {
      return when;
    }

    @Override
    public String found() {
      return label;
    }
  }

  /** A code that excludes the others, chosen with others. */
  record NotAlone(String detailCode, String label) implements PointReason {
    @Override
    public Code code() {
      return Code.ALONE;
    }

    @Override
    public String detail() {
      return ":" + detailCode;
    }

    @Override
    public Said message() {
      return Said.of("point.notAlone", "label", label);
    }

    @Override
    public String found() {
      return label;
    }
  }

  /** A value that another feature of the layer has, where none may share it. */
  record Taken(Value value, Said shown) implements PointReason {
    @Override
    public String found() {
      return value.plain();
    }

    @Override
    public Code code() {
      return Code.UNIQUE;
    }

    @Override
    public Said message() {
      return Said.of("point.taken", "found", shown);
    }
  }

  /** A formula that gives no number that can be kept. */
  record NotFinite() implements PointReason {
    @Override
    public Code code() {
      return Code.FINITE;
    }

    @Override
    public Said message() {
      return Said.of("point.notFinite");
    }
  }

  /**
   * A check that does not hold.
   *
   * @param number counted from 0
   * @param said its author's message, filled in; nothing for the rule's sentence
   * @param expected the rule as a sentence
   */
  record Broken(int number, Said said, Said expected) implements PointReason {
    @Override
    public Code code() {
      return Code.CHECK;
    }

    @Override
    public String detail() {
      return String.valueOf(number);
    }

    @Override
    public Said message() {
      return said.isEmpty() ? Said.of("point.shouldHold", "sentence", expected) : said;
    }
  }

  /** A row of the last visit of which nobody has said yet what became of it. */
  record RowUnconfirmed() implements PointReason {
    @Override
    public Code code() {
      return Code.STATE;
    }

    @Override
    public Said message() {
      return Said.of("point.rowUnconfirmed");
    }
  }

  /** A position that is known less well than the form asks, both in metres. */
  record Inaccurate(double accuracyM, double mostM) implements PointReason {
    @Override
    public Code code() {
      return Code.INACCURATE;
    }

    @Override
    public Said message() {
      return Said.of(
          "point.inaccurate", "is", Said.fixed(accuracyM, 1), "most", Said.number(mostM));
    }

    @Override
    public Said expected() {
      return Said.of("point.accurate", "most", Said.number(mostM));
    }
  }

  /** A new feature without a place, or with one that its layer can't have. */
  record NoPlace(GeometryKind kind) implements PointReason {
    @Override
    public Code code() {
      return Code.PLACE;
    }

    @Override
    public Said message() {
      return Said.of("point.noPlace", "kind", kind.id());
    }
  }

  /** A position outside of the allowed area. */
  record Outside(String area) implements PointReason {
    @Override
    public Code code() {
      return Code.OUTSIDE;
    }

    @Override
    public Said message() {
      return Said.of("point.outside", "area", area);
    }

    @Override
    public Said expected() {
      return Said.of("point.within", "area", area);
    }
  }
}
