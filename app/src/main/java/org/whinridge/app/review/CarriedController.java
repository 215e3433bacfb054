package org.whinridge.app.review;

import com.github.benmanes.caffeine.cache.Cache;
import com.github.benmanes.caffeine.cache.Caffeine;
import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import java.io.IOException;
import java.nio.file.Path;
import java.security.Principal;
import java.time.Duration;
import java.util.Map;
import java.util.Optional;
import java.util.UUID;
import org.springframework.beans.factory.annotation.Value;
import org.springframework.stereotype.Controller;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.ResponseBody;
import org.whinridge.app.daybook.CarriedFiles;
import org.whinridge.app.project.Project;
import org.whinridge.app.project.Projects;
import org.whinridge.app.shell.Needs;
import org.whinridge.app.shell.Refusal;
import org.whinridge.app.shell.TusRequests;
import org.whinridge.app.shell.TusUploads;
import org.whinridge.core.access.Right;

/** Takes files of what devices carry. */
@Controller
class CarriedController {
  private static final int TOLD = 200;
  private static final Duration TOLD_FOR = Duration.ofHours(1);
  private final Projects projects;
  private final CarriedFiles carried;
  private final TusUploads uploads;
  private final long limit;

  /** What came of files a while ago, for whoever sent them; the visits themselves tell the rest. */
  private final Cache<UUID, Told> told =
      Caffeine.newBuilder().maximumSize(TOLD).expireAfterWrite(TOLD_FOR).build();

  private record Told(UUID project, CarriedFiles.Brought brought) {}

  CarriedController(
      Projects projects,
      CarriedFiles carried,
      TusUploads uploads,
      @Value("${whinridge.carried-limit}") long limit) {
    this.projects = projects;
    this.carried = carried;
    this.uploads = uploads;
    this.limit = limit;
  }

  @Needs(Right.MANAGE)
  @TusRequests({"/api/p/{project}/carried-uploads", "/api/p/{project}/carried-uploads/{id}"})
  void upload(
      @PathVariable String project,
      @PathVariable Optional<UUID> id,
      HttpServletRequest q,
      HttpServletResponse r,
      Principal person)
      throws IOException {
    uploads.handle(
        id,
        "/api/p/" + project + "/carried-uploads",
        q,
        r,
        person.getName(),
        new OfACarriedFile(projects.byKey(project), person.getName()));
  }

  /** What came of a file. */
  @Needs(Right.MANAGE)
  @GetMapping("/api/p/{project}/carried/{upload}")
  @ResponseBody
  CarriedFiles.Brought brought(@PathVariable String project, @PathVariable UUID upload) {
    UUID p = projects.byKey(project).id();
    return Optional.ofNullable(told.getIfPresent(upload))
        .filter(t -> t.project().equals(p))
        .map(Told::brought)
        .orElseThrow(() -> Refusal.notFound("thing.carried"));
  }

  private final class OfACarriedFile implements TusUploads.Target {
    private final Project project;
    private final String person;

    OfACarriedFile(Project project, String person) {
      this.project = project;
      this.person = person;
    }

    @Override
    public long limit() {
      return limit;
    }

    @Override
    public String begin(Map<String, String> metadata, long length, String owner, long open) {
      return metadata.getOrDefault("name", "");
    }

    @Override
    public void complete(UUID upload, String about, Path file) throws IOException {
      told.put(upload, new Told(project.id(), carried.bring(project, file, person)));
    }
  }
}
