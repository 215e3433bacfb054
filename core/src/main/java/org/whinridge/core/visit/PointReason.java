package org.whinridge.core.visit;

import java.util.Locale;
import org.whinridge.core.form.Check;
import org.whinridge.core.text.Numbers;

/**
 * Why something is open on a sheet: each reason with what was expected, what was found and what
 * mends it, as far as it has them; "" where it has none. All reasons there are stand here.
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
    OUTSIDE("allowed area");
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

  /** What it is, in words for whoever fills the sheet. */
  String message();

  /** What the form asks for; "" when that is no one thing. */
  default String expected() {
    return "";
  }

  /** What stands there; "" when nothing does. */
  default String found() {
    return "";
  }

  /** What mends it; "" when the message says all there is to say. */
  default String cure() {
    return "";
  }

  /** No answer where one is needed; {@code least} of what is collected, "" for a plain answer. */
  record Needed(String least) implements PointReason {
    @Override
    public Code code() {
      return Code.NEEDED;
    }

    @Override
    public String message() {
      return least.isEmpty() ? "needs an answer" : "at least " + least;
    }

    @Override
    public String expected() {
      return least.isEmpty() ? "an answer" : "at least " + least;
    }
  }

  /** No answer where one is wanted. */
  record Wanted() implements PointReason {
    @Override
    public Code code() {
      return Code.WANTED;
    }

    @Override
    public String message() {
      return "an answer is wanted, if you can";
    }
  }

  /** Another kind of value than the question's. */
  record WrongType(String found, String expected) implements PointReason {
    @Override
    public Code code() {
      return Code.TYPE;
    }

    @Override
    public String message() {
      return "‘" + found + "’ is not " + expected;
    }
  }

  /** A number with a fraction where whole ones are asked for. */
  record NotWhole(String found) implements PointReason {
    @Override
    public Code code() {
      return Code.WHOLE;
    }

    @Override
    public String message() {
      return found + " is not a whole number";
    }

    @Override
    public String expected() {
      return "a whole number";
    }
  }

  /** Not a time of day. */
  record NoTime(String found) implements PointReason {
    @Override
    public Code code() {
      return Code.TIME;
    }

    @Override
    public String message() {
      return "‘" + found + "’ is no time of day, such as 09:30";
    }

    @Override
    public String expected() {
      return "hours and minutes, such as 09:30";
    }
  }

  /** A number outside of its range; the unit stands in {@code expected}. */
  record OutOfRange(String expected, String found) implements PointReason {
    @Override
    public Code code() {
      return Code.RANGE;
    }

    @Override
    public String message() {
      return expected;
    }
  }

  /** A number between the steps. */
  record OffStep(double step, String unit, double value) implements PointReason {
    @Override
    public Code code() {
      return Code.STEP;
    }

    @Override
    public String message() {
      return expected() + "; this is " + found();
    }

    @Override
    public String expected() {
      return "in steps of " + Numbers.plain(step) + unit;
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
    public String message() {
      return "this can't be less than 0";
    }

    @Override
    public String expected() {
      return "at least 0";
    }
  }

  /** A text of too few characters. */
  record TooShort(int least, int has) implements PointReason {
    @Override
    public Code code() {
      return Code.LEAST;
    }

    @Override
    public String message() {
      return expected() + "; this has " + has;
    }

    @Override
    public String expected() {
      return "at least " + least + " characters";
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
    public String message() {
      return expected() + "; this has " + has;
    }

    @Override
    public String expected() {
      return "at most " + most + " characters";
    }

    @Override
    public String found() {
      return String.valueOf(has);
    }
  }

  /** Fewer answers, photos or rows than the least; {@code least} is counted, "2 photos". */
  record TooFew(String least) implements PointReason {
    @Override
    public Code code() {
      return Code.LEAST;
    }

    @Override
    public String message() {
      return "at least " + least;
    }

    @Override
    public String expected() {
      return message();
    }
  }

  /** More answers, photos or rows than the most; {@code most} is counted, "2 photos". */
  record TooMany(String most) implements PointReason {
    @Override
    public Code code() {
      return Code.MOST;
    }

    @Override
    public String message() {
      return "at most " + most;
    }

    @Override
    public String expected() {
      return message();
    }
  }

  /** A shape of another dimension; {@code expected} is "a point", "a line" or "an area". */
  record OtherShape(String expected) implements PointReason {
    @Override
    public Code code() {
      return Code.SHAPE;
    }

    @Override
    public String message() {
      return "this needs " + expected;
    }
  }

  /** A drawing that crosses itself. */
  record CrossesItself() implements PointReason {
    @Override
    public Code code() {
      return Code.VALID;
    }

    @Override
    public String message() {
      return "the drawing crosses itself; " + cure();
    }

    @Override
    public String cure() {
      return "draw it again, or keep it";
    }
  }

  /** A code that the list does not have. */
  record NotInList(String found) implements PointReason {
    @Override
    public Code code() {
      return Code.CODE;
    }

    @Override
    public String message() {
      return "‘" + found + "’ is not in the list; " + cure();
    }

    @Override
    public String cure() {
      return "choose one, or confirm that it stays";
    }
  }

  /** A code that is not offered under the other answers. */
  record DoesNotFit(String detailCode, String label, String when) implements PointReason {
    @Override
    public Code code() {
      return Code.FITS;
    }

    @Override
    public String detail() {
      return ":" + detailCode;
    }

    @Override
    public String message() {
      return "‘" + label + "’ does not fit here: it is offered when " + when;
    }

    @Override
    public String expected() {
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
    public String message() {
      return "‘" + label + "’ can't be chosen together with others";
    }

    @Override
    public String found() {
      return label;
    }
  }

  /** A value that another feature of the layer has, where none may share it. */
  record Taken(String found) implements PointReason {
    @Override
    public Code code() {
      return Code.UNIQUE;
    }

    @Override
    public String message() {
      return "another feature already has ‘" + found + "’; it must be this one's alone";
    }
  }

  /** A formula that gives no number that can be kept. */
  record NotFinite() implements PointReason {
    @Override
    public Code code() {
      return Code.FINITE;
    }

    @Override
    public String message() {
      return "the formula gives nothing that can be kept, such as a division by zero";
    }
  }

  /**
   * A check that does not hold.
   *
   * @param number counted from 0
   * @param said its author's message, filled in; "" for the rule's sentence
   * @param expected the rule as a sentence
   */
  record Broken(int number, String said, String expected) implements PointReason {
    @Override
    public Code code() {
      return Code.CHECK;
    }

    @Override
    public String detail() {
      return String.valueOf(number);
    }

    @Override
    public String message() {
      return said.isEmpty() ? Check.proposed(expected) : said;
    }
  }

  /** A row of the last visit of which nobody has said yet what became of it. */
  record RowUnconfirmed() implements PointReason {
    @Override
    public Code code() {
      return Code.STATE;
    }

    @Override
    public String message() {
      return "found by the last visit: still there, mended, or gone?";
    }
  }

  /** A position outside of the allowed area. */
  record Outside(String area) implements PointReason {
    @Override
    public Code code() {
      return Code.OUTSIDE;
    }

    @Override
    public String message() {
      return "the place lies outside " + area;
    }

    @Override
    public String expected() {
      return "within " + area;
    }
  }
}
