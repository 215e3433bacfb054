package org.whinridge.app.overview;

import java.io.IOException;
import java.util.ArrayList;
import java.util.Collections;
import java.util.List;
import java.util.UUID;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.jdbc.core.JdbcTemplate;
import org.springframework.scheduling.annotation.Scheduled;
import org.springframework.stereotype.Component;
import org.springframework.transaction.PlatformTransactionManager;
import org.springframework.transaction.support.TransactionTemplate;
import org.whinridge.app.map.Basemaps;
import org.whinridge.app.photo.Photos;
import org.whinridge.app.project.ProjectCare;

/** Takes removed projects away for ever when the time is over in which they can be brought back. */
@Component
class ProjectEnding {
  private static final Logger LOG = LoggerFactory.getLogger(ProjectEnding.class);
  private final ProjectCare care;
  private final JdbcTemplate jdbc;
  private final Photos photos;
  private final Basemaps basemaps;
  private final TransactionTemplate transaction;

  ProjectEnding(
      ProjectCare care,
      JdbcTemplate jdbc,
      Photos photos,
      Basemaps basemaps,
      PlatformTransactionManager manager) {
    this.care = care;
    this.jdbc = jdbc;
    this.photos = photos;
    this.basemaps = basemaps;
    this.transaction = new TransactionTemplate(manager);
  }

  @Scheduled(initialDelay = 900_000, fixedDelay = 3_600_000)
  void end() throws IOException {
    for (UUID project : care.over()) end(project);
  }

  /** Takes one away: its rows at once, then the files that nothing names any more. */
  void end(UUID project) throws IOException {
    List<UUID> maps =
        jdbc.queryForList("select id from basemap where project_id = ?", UUID.class, project);
    List<String> hashes = new ArrayList<>();
    transaction.executeWithoutResult(
        t -> {
          List<ProjectRows.Rows> all = new ArrayList<>(ProjectRows.ALL);
          Collections.reverse(all);
          List<UUID> handIns = handIns(project);
          for (ProjectRows.Rows rows : all) {
            if (rows.table().equals("visit_photo"))
              hashes.addAll(
                  jdbc.queryForList(rows.select("distinct sha256"), String.class, project));
            if (!rows.table().equals("hand_in"))
              jdbc.update("delete from " + rows.table() + " where " + rows.where(), project);
          }
          // one hand-in can hold visits of several projects
          for (UUID id : handIns)
            jdbc.update(
                "delete from hand_in where id = ? and not exists (select 1 from visit where hand_in_id = hand_in.id) and not exists (select 1 from set_aside where hand_in_id = hand_in.id)",
                id);
          jdbc.update("delete from project where id = ?", project);
        });
    for (UUID id : maps) basemaps.forgetFile(id);
    photos.unnamed(hashes);
    LOG.info("a project that was removed long ago is gone: {}", project);
  }

  private List<UUID> handIns(UUID project) {
    ProjectRows.Rows rows =
        ProjectRows.ALL.stream().filter(r -> r.table().equals("hand_in")).findFirst().orElseThrow();
    return jdbc.queryForList(rows.select("id"), UUID.class, project);
  }
}
