package org.whinridge.core.form;

import com.eclipsesource.json.JsonArray;
import com.eclipsesource.json.JsonObject;
import com.eclipsesource.json.JsonValue;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.regex.Pattern;
import org.whinridge.core.said.Said;
import org.whinridge.core.said.Unfit;

/**
 * What is said of a form as a whole, besides its title. It is part of an edition, so that whoever
 * is out works by what was published.
 *
 * @param purpose what the visits are for; "" when nobody said
 * @param plannedMinutes how long a visit takes, minutes; 0 when nobody said
 * @param season the part of the year in which visits are expected; empty for the whole year
 * @param expectedVisits how many are expected in a season; 0 when nobody said
 * @param review who accepts a visit
 * @param caption the questions whose answers name a visit, in order; empty for what names the
 *     feature
 * @param photoPixels the longer side to which photos are made smaller on the device; 0 for as taken
 * @param accuracyM how far off a position may be, metres; 0 for any
 * @param publishAfterMinutes after how long without a change a sound draft is published by itself;
 *     0 for by hand
 */
public record FormSettings(
    String purpose,
    int plannedMinutes,
    Optional<Season> season,
    int expectedVisits,
    Review review,
    List<String> caption,
    int photoPixels,
    double accuracyM,
    int publishAfterMinutes) {
  /** The settings by the names of their members, in the order in which people are asked. */
  public static final List<String> SETTINGS =
      List.of(
          "purpose",
          "plannedMinutes",
          "season",
          "expectedVisits",
          "review",
          "caption",
          "photoPixels",
          "accuracyM",
          "publishAfterMinutes");

  /** Nothing said. */
  public static final FormSettings NONE =
      new FormSettings("", 0, Optional.empty(), 0, Review.DESK, List.of(), 0, 0, 0);

  /** The longest purpose, characters. */
  public static final int LONGEST_PURPOSE = 2000;

  /** Photos are made no smaller than this, pixels, so that a gauge can still be read. */
  public static final int FEWEST_PIXELS = 640;

  private static final int MOST = 1_000_000;
  private static final int MOST_PIXELS = 20_000;
  private static final int MOST_MINUTES = 100_000;

  /** Who accepts a visit. */
  public enum Review {
    /** A person at the desk. */
    DESK("desk"),
    /** By itself, when nothing clashes and nothing is open; else a person at the desk. */
    ITSELF("itself");
    private final String id;

    Review(String id) {
      this.id = id;
    }

    /** The word in data. */
    public String id() {
      return id;
    }

    static Review of(String id) {
      for (Review r : values()) if (r.id.equals(id)) return r;
      throw unfit("review");
    }
  }

  /**
   * A part of each year, both days in it; it may run over the turn of the year.
   *
   * @param from MM-DD
   * @param to MM-DD
   */
  public record Season(String from, String to) {
    private static final Pattern DAY =
        Pattern.compile(
            "(0[13578]|1[02])-(0[1-9]|[12]\\d|3[01])|(0[469]|11)-(0[1-9]|[12]\\d|30)|02-(0[1-9]|[12]\\d)");

    public Season {
      if (!DAY.matcher(from).matches() || !DAY.matcher(to).matches())
        throw new Unfit("form.season");
    }

    /** Whether a day lies in it. @param day YYYY-MM-DD */
    public boolean has(String day) {
      String d = day.substring(5);
      boolean over = from.compareTo(to) > 0;
      return over
          ? d.compareTo(from) >= 0 || d.compareTo(to) <= 0
          : d.compareTo(from) >= 0 && d.compareTo(to) <= 0;
    }

    /**
     * The first day of the season in which a day lies, or of the last one before it.
     *
     * @param day YYYY-MM-DD
     * @return YYYY-MM-DD; a season from 29 February begins on 1 March in other years
     */
    public String begunBy(String day) {
      int year = Integer.parseInt(day.substring(0, 4));
      return day(day.substring(5).compareTo(from) >= 0 ? year : year - 1);
    }

    private String day(int year) {
      boolean leap = year % 4 == 0 && (year % 100 != 0 || year % 400 == 0);
      String d = from.equals("02-29") && !leap ? "03-01" : from;
      return String.valueOf(10_000 + year).substring(1) + "-" + d;
    }
  }

  public FormSettings {
    caption = List.copyOf(caption);
    bounded("plannedMinutes", plannedMinutes, MOST_MINUTES);
    bounded("expectedVisits", expectedVisits, MOST);
    bounded("publishAfterMinutes", publishAfterMinutes, MOST_MINUTES);
    bounded("photoPixels", photoPixels, MOST_PIXELS);
    if (photoPixels > 0 && photoPixels < FEWEST_PIXELS)
      throw new Unfit("form.fewPixels", "least", FEWEST_PIXELS);
    if (!(accuracyM >= 0 && accuracyM <= MOST)) throw unfit("accuracyM");
    if (purpose.length() > LONGEST_PURPOSE)
      throw new Unfit("form.longPurpose", "most", LONGEST_PURPOSE);
  }

  private static void bounded(String setting, int n, int most) {
    if (n < 0 || n > most) throw unfit(setting);
  }

  private static Unfit unfit(String setting) {
    return new Unfit(
        "form.setting",
        "setting",
        SETTINGS.contains(setting) ? Said.of("formSetting." + setting) : Said.text(setting));
  }

  /** The JSON form; what was not said is left out. */
  JsonObject json() {
    JsonObject o = new JsonObject();
    if (!purpose.isEmpty()) o.add("purpose", purpose);
    count(o, "plannedMinutes", plannedMinutes);
    season.ifPresent(
        s -> o.add("season", new JsonObject().add("from", s.from()).add("to", s.to())));
    count(o, "expectedVisits", expectedVisits);
    if (review != Review.DESK) o.add("review", review.id());
    if (!caption.isEmpty()) {
      JsonArray names = new JsonArray();
      caption.forEach(names::add);
      o.add("caption", names);
    }
    count(o, "photoPixels", photoPixels);
    if (accuracyM > 0) o.add("accuracyM", accuracyM);
    count(o, "publishAfterMinutes", publishAfterMinutes);
    return o;
  }

  private static void count(JsonObject o, String member, int n) {
    if (n > 0) o.add(member, n);
  }

  /** Reads the JSON form; null stands for nothing said. */
  static FormSettings read(JsonValue v) {
    if (v == null || v.isNull()) return NONE;
    JsonObject o = v.asObject();
    JsonValue season = o.get("season");
    List<String> caption = new ArrayList<>();
    if (o.get("caption") != null)
      for (JsonValue name : o.get("caption").asArray()) caption.add(name.asString());
    return new FormSettings(
        o.getString("purpose", "").strip(),
        o.getInt("plannedMinutes", 0),
        season == null || season.isNull()
            ? Optional.empty()
            : Optional.of(
                new Season(
                    season.asObject().getString("from", ""),
                    season.asObject().getString("to", ""))),
        o.getInt("expectedVisits", 0),
        Review.of(o.getString("review", Review.DESK.id())),
        caption,
        o.getInt("photoPixels", 0),
        o.getDouble("accuracyM", 0),
        o.getInt("publishAfterMinutes", 0));
  }

  /** The settings with one of them replaced; null as value takes it away. */
  public FormSettings with(String setting, JsonValue value) {
    JsonObject now = json();
    now.remove(setting);
    if (value != null && !value.isNull()) now.add(setting, value);
    if (!SETTINGS.contains(setting)) throw unfit(setting);
    return read(now);
  }
}
