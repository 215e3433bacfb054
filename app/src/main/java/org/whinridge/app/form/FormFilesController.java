package org.whinridge.app.form;

import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.security.Principal;
import java.time.Duration;
import java.util.UUID;
import org.springframework.http.CacheControl;
import org.springframework.http.ContentDisposition;
import org.springframework.http.MediaType;
import org.springframework.http.ResponseEntity;
import org.springframework.stereotype.Controller;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.ResponseBody;
import org.springframework.web.multipart.MultipartFile;
import org.whinridge.app.project.Projects;
import org.whinridge.app.shell.Needs;
import org.whinridge.app.shell.Refusal;
import org.whinridge.core.access.Right;

/** Reference pictures, pictures of notes and documents of guidance come in and are shown. */
@Controller
class FormFilesController {
  private final Projects projects;
  private final FormFiles files;

  FormFilesController(Projects projects, FormFiles files) {
    this.projects = projects;
    this.files = files;
  }

  /** The file that was kept. */
  record Kept(UUID id, String name) {}

  private static String name(MultipartFile file) {
    String name = file.getOriginalFilename() == null ? "" : file.getOriginalFilename();
    String clean = name.substring(Math.max(name.lastIndexOf('/'), name.lastIndexOf('\\')) + 1);
    return clean.isBlank() ? "file" : clean.strip();
  }

  /** Keeps a reference picture. */
  @Needs(Right.BUILD_FORMS)
  @PostMapping("/api/p/{project}/form-pictures")
  @ResponseBody
  Kept picture(@PathVariable String project, @RequestParam MultipartFile file, Principal person)
      throws IOException {
    return kept(project, file, person);
  }

  /** Keeps a picture of a round's note. */
  @Needs(Right.PLAN_ROUNDS)
  @PostMapping("/api/p/{project}/round-pictures")
  @ResponseBody
  Kept notePicture(@PathVariable String project, @RequestParam MultipartFile file, Principal person)
      throws IOException {
    return kept(project, file, person);
  }

  private Kept kept(String project, MultipartFile file, Principal person) throws IOException {
    UUID p = projects.byKey(project).id();
    Path kept = Files.createTempFile("picture", ".file");
    try {
      file.transferTo(kept);
      byte[] jpeg = files.picture(kept, name(file));
      return new Kept(files.keepPicture(p, name(file), jpeg, person.getName()), name(file));
    } finally {
      Files.deleteIfExists(kept);
    }
  }

  /** Keeps a document of guidance. */
  @Needs(Right.BUILD_FORMS)
  @PostMapping("/api/p/{project}/form-documents")
  @ResponseBody
  Kept document(@PathVariable String project, @RequestParam MultipartFile file, Principal person)
      throws IOException {
    if (file.getSize() > FormFiles.MOST_BYTES)
      throw Refusal.tooLarge(
          "refused.documentTooLarge", "name", name(file), "mb", FormFiles.MOST_BYTES / 1_000_000);
    UUID p = projects.byKey(project).id();
    return new Kept(
        files.keepDocument(p, name(file), file.getBytes(), person.getName()), name(file));
  }

  /** A file; it never changes, so that a browser keeps it. */
  @Needs(Right.SEE_REGISTER)
  @GetMapping("/p/{project}/form-files/{id}")
  ResponseEntity<byte[]> file(@PathVariable String project, @PathVariable UUID id) {
    FormFile f = files.get(projects.byKey(project).id(), id);
    boolean picture = f.mediaType().startsWith("image/");
    return ResponseEntity.ok()
        .contentType(MediaType.parseMediaType(f.mediaType()))
        .cacheControl(CacheControl.maxAge(Duration.ofDays(30)).cachePrivate())
        .header("X-Content-Type-Options", "nosniff")
        .header(
            "Content-Disposition",
            (picture ? ContentDisposition.inline() : ContentDisposition.attachment())
                .filename(f.name(), StandardCharsets.UTF_8)
                .build()
                .toString())
        .body(f.content());
  }
}
