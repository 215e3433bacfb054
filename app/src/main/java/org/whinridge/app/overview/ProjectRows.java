package org.whinridge.app.overview;

import java.util.List;

/**
 * Which rows belong to a project, table by table, those that others refer to first. A test holds
 * that no table with rows of projects is missing.
 */
final class ProjectRows {
  /**
   * A table and its rows of one project.
   *
   * @param where a condition with one parameter, the project's id
   */
  record Rows(String table, String where, Part part) {
    String select(String what) {
      return "select " + what + " from " + table + " where " + where;
    }
  }

  /** What rows are part of, when a project is copied. */
  enum Part {
    /** Always copied: how the work is set up. */
    SETTINGS,
    /** Copied with the features. */
    FEATURES,
    /** Copied with the visits. */
    WORK,
    /** Never copied: who may do what in this one project. */
    PEOPLE
  }

  private static final String LAYERS = "in (select id from layer where project_id = ?)";

  static final List<Rows> ALL =
      List.of(
          new Rows("member", "project_id = ?", Part.PEOPLE),
          new Rows("invitation", "project_id = ?", Part.PEOPLE),
          new Rows("layer", "project_id = ?", Part.SETTINGS),
          new Rows("basemap", "project_id = ?", Part.SETTINGS),
          new Rows("form", "project_id = ?", Part.SETTINGS),
          new Rows("form_file", "project_id = ?", Part.SETTINGS),
          new Rows("form_template", "project_id = ?", Part.SETTINGS),
          new Rows("form_step", "form_id in (select id from form where project_id = ?)", Part.WORK),
          new Rows(
              "form_trial", "form_id in (select id from form where project_id = ?)", Part.WORK),
          new Rows("ledger_entry", "layer_id " + LAYERS, Part.FEATURES),
          new Rows("feature", "layer_id " + LAYERS, Part.FEATURES),
          new Rows("edition", "form_id in (select id from form where project_id = ?)", Part.WORK),
          new Rows("round", "project_id = ?", Part.WORK),
          new Rows(
              "round_form", "round_id in (select id from round where project_id = ?)", Part.WORK),
          new Rows(
              "round_person", "round_id in (select id from round where project_id = ?)", Part.WORK),
          new Rows("stop", "round_id in (select id from round where project_id = ?)", Part.WORK),
          new Rows(
              "hand_in",
              "exists (select 1 from project p where p.id = ?"
                  + " and (hand_in.id in (select v.hand_in_id from visit v join layer l on l.id = v.layer_id where l.project_id = p.id)"
                  + " or hand_in.id in (select s.hand_in_id from set_aside s where s.project_id = p.id)))",
              Part.WORK),
          new Rows("visit", "layer_id " + LAYERS, Part.WORK),
          new Rows("set_aside", "project_id = ?", Part.WORK),
          new Rows(
              "visit_photo",
              "coalesce(layer_id, (select v.layer_id from visit v where v.id = visit_id)) "
                  + LAYERS,
              Part.WORK));

  private ProjectRows() {}
}
