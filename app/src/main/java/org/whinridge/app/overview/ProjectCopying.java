package org.whinridge.app.overview;

import java.io.IOException;
import java.nio.ByteBuffer;
import java.nio.charset.StandardCharsets;
import java.sql.Clob;
import java.sql.ResultSet;
import java.sql.ResultSetMetaData;
import java.sql.SQLException;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.UUID;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.springframework.jdbc.core.JdbcTemplate;
import org.springframework.stereotype.Service;
import org.springframework.transaction.PlatformTransactionManager;
import org.springframework.transaction.TransactionDefinition;
import org.springframework.transaction.support.TransactionTemplate;
import org.whinridge.app.map.Basemaps;
import org.whinridge.app.project.Members;
import org.whinridge.app.project.Project;
import org.whinridge.app.project.ProjectCare;
import org.whinridge.app.project.ProjectMaking;
import org.whinridge.app.project.ProjectSettings;
import org.whinridge.app.project.Projects;
import org.whinridge.app.shell.Refusal;
import org.whinridge.app.shell.Sha256;
import org.whinridge.core.access.Role;

/**
 * Copies a project: every row under an id of its own, which follows from the old one and the new
 * project, so that whatever refers to it, in a column or within a text, refers to the copy. All is
 * read as it is at one moment, whoever writes meanwhile.
 */
@Service
class ProjectCopying {
  /** What a copy has. */
  enum What {
    /** Layers with fields and looks, forms' drafts, basemaps, the project's map. */
    LAYERS,
    /** The same, and the features with their ledger. */
    FEATURES,
    /** The same, and editions, rounds, visits, photos. */
    EVERYTHING;

    private boolean has(ProjectRows.Part part) {
      return switch (part) {
        case SETTINGS -> true;
        case FEATURES -> this != LAYERS;
        case WORK -> this == EVERYTHING;
        case PEOPLE -> false;
      };
    }
  }

  /** The most features of a copy: all of them are written at once. */
  static final int MOST_FEATURES = 300_000;

  private static final int BATCH = 500;
  private static final Pattern ID =
      Pattern.compile("[0-9a-f]{8}-[0-9a-f]{4}-[0-9a-f]{4}-[0-9a-f]{4}-[0-9a-f]{12}");

  private final JdbcTemplate jdbc;
  private final Projects projects;
  private final ProjectMaking making;
  private final ProjectCare care;
  private final Members members;
  private final Basemaps basemaps;
  private final TransactionTemplate atOneMoment;

  ProjectCopying(
      JdbcTemplate jdbc,
      Projects projects,
      ProjectMaking making,
      ProjectCare care,
      Members members,
      Basemaps basemaps,
      PlatformTransactionManager manager) {
    this.jdbc = jdbc;
    this.projects = projects;
    this.making = making;
    this.care = care;
    this.members = members;
    this.basemaps = basemaps;
    this.atOneMoment = new TransactionTemplate(manager);
    this.atOneMoment.setIsolationLevel(TransactionDefinition.ISOLATION_SERIALIZABLE);
  }

  /** Copies a project under a name; whoever copies is the copy's coordinator. */
  Project copy(UUID project, String name, What what, String person) {
    return atOneMoment.execute(t -> new Copy(project, what, person).make(name));
  }

  /** One copy being made. */
  private final class Copy {
    private final UUID from;
    private final What what;
    private final String person;
    private final Set<UUID> known = new HashSet<>();
    private UUID to;

    Copy(UUID from, What what, String person) {
      this.from = from;
      this.what = what;
      this.person = person;
    }

    Project make(String name) {
      Long features =
          jdbc.queryForObject(
              "select coalesce(sum(feature_count), 0) from layer where project_id = ?",
              Long.class,
              from);
      if (what != What.LAYERS && features > MOST_FEATURES)
        throw Refusal.refused("refused.copyTooLarge", "n", features, "most", MOST_FEATURES);
      Project old = projects.byId(from);
      Project made =
          projects.make(
              making.keyFor(name),
              ProjectSettings.named(name),
              old.systemCode(),
              old.systemDefinition(),
              projects.hasBasemap(from) ? projects.basemap(from) : null);
      to = made.id();
      care.set(to, new ProjectSettings(made.name(), old.units(), old.zone(), old.expectedArea()));
      projects.flush();
      members.give(to, person, Role.COORDINATOR);
      List<ProjectRows.Rows> all =
          ProjectRows.ALL.stream().filter(r -> what.has(r.part())).toList();
      known.add(from);
      for (ProjectRows.Rows rows : all)
        known.addAll(jdbc.queryForList(rows.select("id"), UUID.class, from));
      all.forEach(this::rows);
      if (what == What.LAYERS)
        jdbc.update(
            "update layer set feature_count = 0, west = null, south = null, east = null, north = null where project_id = ?",
            to);
      if (what != What.EVERYTHING)
        jdbc.update(
            "update ledger_entry set visit_id = null where layer_id in (select id from layer where project_id = ?)",
            to);
      projects
          .map(from)
          .json()
          .ifPresent(
              json -> jdbc.update("update project set map = ? where id = ?", text(json), to));
      files();
      return made;
    }

    private void files() {
      for (UUID id :
          jdbc.queryForList("select id from basemap where project_id = ?", UUID.class, from))
        try {
          basemaps.copyFile(id, other(id));
        } catch (IOException e) {
          throw new java.io.UncheckedIOException("a basemap's file can't be copied", e);
        }
    }

    /** The id that a row has in the copy. */
    private UUID other(UUID id) {
      if (id.equals(from)) return to;
      ByteBuffer b = ByteBuffer.allocate(32);
      for (UUID u : List.of(to, id))
        b.putLong(u.getMostSignificantBits()).putLong(u.getLeastSignificantBits());
      return UUID.nameUUIDFromBytes(b.array());
    }

    /** A text that names the copies where it named the rows of the project. */
    private String text(String s) {
      if (s.indexOf('-') < 0) return s;
      Matcher m = ID.matcher(s);
      StringBuilder out = new StringBuilder();
      while (m.find()) {
        UUID id = UUID.fromString(m.group());
        m.appendReplacement(out, known.contains(id) ? other(id).toString() : m.group());
      }
      return m.appendTail(out).toString();
    }

    private void rows(ProjectRows.Rows rows) {
      List<Object[]> batch = new ArrayList<>();
      String[] insert = new String[1];
      jdbc.query(
          rows.select("*"),
          r -> {
            if (insert[0] == null) insert[0] = insert(rows.table(), r.getMetaData());
            batch.add(row(r));
            if (batch.size() == BATCH) write(insert[0], batch);
          },
          from);
      if (!batch.isEmpty()) write(insert[0], batch);
    }

    private void write(String insert, List<Object[]> batch) {
      jdbc.batchUpdate(insert, batch);
      batch.clear();
    }

    private Object[] row(ResultSet r) throws SQLException {
      ResultSetMetaData m = r.getMetaData();
      Map<String, Object> by = new HashMap<>();
      Object[] out = new Object[m.getColumnCount()];
      for (int i = 0; i < out.length; i++) {
        out[i] = value(r, i + 1);
        by.put(m.getColumnName(i + 1).toLowerCase(java.util.Locale.ROOT), out[i]);
      }
      // the hash of a document that names other ids now
      if (by.get("document_hash") != null)
        for (int i = 0; i < out.length; i++)
          if (m.getColumnName(i + 1).equalsIgnoreCase("document_hash"))
            out[i] = Sha256.of(String.valueOf(by.get("document")).getBytes(StandardCharsets.UTF_8));
      return out;
    }

    private Object value(ResultSet r, int column) throws SQLException {
      Object v = r.getObject(column);
      if (v instanceof UUID id) return known.contains(id) ? other(id) : id;
      if (v instanceof Clob c) return text(c.getSubString(1, Math.toIntExact(c.length())));
      if (v instanceof String s) return text(s);
      if (v instanceof byte[] json)
        return text(new String(json, StandardCharsets.UTF_8)).getBytes(StandardCharsets.UTF_8);
      return v;
    }

    private static String insert(String table, ResultSetMetaData m) throws SQLException {
      StringBuilder names = new StringBuilder();
      StringBuilder values = new StringBuilder();
      for (int i = 1; i <= m.getColumnCount(); i++) {
        names.append(i == 1 ? "" : ", ").append('"').append(m.getColumnName(i)).append('"');
        values.append(i == 1 ? "" : ", ").append(isJson(m, i) ? "? format json" : "?");
      }
      return "insert into " + table + " (" + names + ") values (" + values + ")";
    }

    private static boolean isJson(ResultSetMetaData m, int column) throws SQLException {
      return m.getColumnTypeName(column).equals("JSON");
    }
  }
}
