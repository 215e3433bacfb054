package org.whinridge.app.bringin;

import java.util.List;
import java.util.Optional;
import org.whinridge.core.place.GeometryKind;
import org.whinridge.core.place.Repair;
import org.whinridge.core.profile.ColumnMatch;
import org.whinridge.core.profile.DayOrder;
import org.whinridge.core.profile.PlaceColumns;
import org.whinridge.core.profile.Survey;
import org.whinridge.formats.Sources;
import org.whinridge.formats.source.Described;
import org.whinridge.formats.source.RawFeature;
import org.whinridge.formats.source.Source;

/** What was found in the files of a lot, before anything is imported. */
record Found(List<Found.Part> parts, List<Sources.NotUnderstood> notUnderstood) {
  /**
   * A layer that was found. A layer of mixed geometry comes as one part for each kind.
   *
   * @param kind its geometry; a table may still get places from its columns
   * @param title a name proposed for it
   * @param count features of this kind
   * @param places the columns that say where a table's rows are, if any were found
   * @param sample some of its features, for maps and previews, and the first that cross themselves
   * @param pictures how many pictures come with its features
   */
  record Part(
      int index,
      Source source,
      Source.SourceLayer layer,
      GeometryKind kind,
      String title,
      int count,
      Survey survey,
      List<Survey.Column> columns,
      Optional<PlaceColumns> places,
      List<RawFeature> sample,
      int pictures) {
    /** Columns that can tell features apart, the likeliest first. */
    public List<Survey.Column> keys() {
      return columns.stream().filter(Survey.Column::mayBeKey).toList();
    }

    /** The column that is proposed to name a feature; "" for none. */
    public String tag() {
      List<Survey.Column> taken =
          columns.stream().filter(c -> !layer.aside().contains(c.source())).toList();
      String name =
          layer
              .described()
              .map(Described::tagField)
              .filter(t -> taken.stream().anyMatch(c -> c.field().name().equals(t)))
              .orElseGet(
                  () ->
                      ColumnMatch.tag(
                          taken.stream().map(Survey.Column::field).toList(),
                          taken.stream()
                              .filter(c -> c.isTagLike(survey.count()))
                              .map(Survey.Column::field)
                              .toList()));
      return taken.stream()
          .filter(c -> c.field().name().equals(name))
          .map(Survey.Column::source)
          .findFirst()
          .orElse("");
    }

    /** The column that is proposed to say who made a visit; "" for none. */
    public String visitor() {
      return ColumnMatch.visitor(columns.stream().map(Survey.Column::source).toList());
    }

    /** Whether somebody must say which number of its dates is the day. */
    public boolean isOrderUnsure() {
      return columns.stream().anyMatch(c -> c.guess().dayOrder() == DayOrder.UNSURE);
    }

    /** A value of a column whose dates could be read in two ways. */
    public String unsureDate() {
      return columns.stream()
          .filter(c -> c.guess().dayOrder() == DayOrder.UNSURE && !c.samples().isEmpty())
          .map(c -> c.samples().get(0))
          .findFirst()
          .orElse("");
    }

    /** Of a layer with several kinds of geometry. */
    public boolean isOneOfSeveral() {
      return survey.kinds().size() > 1;
    }

    /** Whether these are those features of a layer with several kinds that have no usable place. */
    public boolean isWithoutPlace() {
      return kind == GeometryKind.TABLE && isOneOfSeveral();
    }

    /** Whether it is proposed to be taken: an empty layer, or one that the file hides, is not. */
    public boolean isProposed() {
      return count > 0 && !layer.hidden();
    }

    /** The way of repair that is proposed: the one that changes the fewest areas. */
    public Repair repair() {
      return survey.changing(Repair.LINEWORK) < survey.changing(Repair.STRUCTURE)
          ? Repair.LINEWORK
          : Repair.STRUCTURE;
    }

    /**
     * The system that the file names, or that its coordinates speak for; "" when it must be chosen:
     * degrees are not believed when most positions are none.
     */
    public String systemCode() {
      boolean degrees =
          layer.table() ? places.filter(PlaceColumns::degrees).isPresent() : survey.mayBeDegrees();
      if (layer.system().isEmpty()) return degrees ? "EPSG:4326" : "";
      if (layer.system().get().isInDegrees() && !degrees) return "";
      return layer.system().get().code().isEmpty() ? "file" : layer.system().get().code();
    }
  }
}
