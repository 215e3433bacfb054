package org.whinridge.app.form;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Collection;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.UUID;
import java.util.stream.Collectors;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import org.whinridge.app.layer.Layers;
import org.whinridge.app.shell.Refusal;
import org.whinridge.app.shell.Sha256;
import org.whinridge.app.shell.Shrinking;
import org.whinridge.app.shell.Writing;
import org.whinridge.core.form.Form;

/**
 * Files that travel with forms, and with the notes of rounds. They never change, so that an edition
 * shows what it was published with; who changes a picture puts another one in its place.
 */
@Service
@Transactional(readOnly = true)
public class FormFiles {
  /** The largest document of guidance, bytes: it goes out to every device. */
  static final long MOST_BYTES = 20_000_000;

  /** The largest picture before it is made smaller, bytes. */
  static final long MOST_PICTURE_BYTES = 100_000_000;

  /** What the files of one project may have together, bytes. */
  static final long MOST_OF_A_PROJECT = 500_000_000;

  /** The longer edge of a reference picture, pixels: as much as a tablet shows. */
  private static final int EDGE = 1600;

  private static final int LONGEST_NAME = 200;

  /** Kinds of documents that a browser shows or a device opens, and that run nothing. */
  private static final Map<String, String> DOCUMENTS =
      Map.of(
          "pdf", "application/pdf",
          "txt", "text/plain",
          "csv", "text/csv",
          "jpg", "image/jpeg",
          "jpeg", "image/jpeg",
          "png", "image/png",
          "docx", "application/vnd.openxmlformats-officedocument.wordprocessingml.document",
          "xlsx", "application/vnd.openxmlformats-officedocument.spreadsheetml.sheet",
          "odt", "application/vnd.oasis.opendocument.text");

  private final FormFileRepository files;
  private final Shrinking shrinking;

  FormFiles(FormFileRepository files, Shrinking shrinking) {
    this.files = files;
    this.shrinking = shrinking;
  }

  /** A file of a project. */
  public FormFile get(UUID project, UUID id) {
    return files
        .findByIdAndProjectId(id, project)
        .map(f -> new FormFile(f.id, f.name, f.mediaType, f.content))
        .orElseThrow(() -> Refusal.notFound("thing.formFile"));
  }

  /** A file of a project by what a form says of it; empty when it is not there. */
  public Optional<FormFile> of(UUID project, String id) {
    return uuid(id)
        .flatMap(u -> files.findByIdAndProjectId(u, project))
        .map(f -> new FormFile(f.id, f.name, f.mediaType, f.content));
  }

  /** Whether a file that a form refers to is there. */
  public boolean has(UUID project, String id) {
    return uuid(id).filter(u -> files.existsByIdAndProjectId(u, project)).isPresent();
  }

  /** Those of some ids that are pictures of a project. */
  public Set<String> pictures(UUID project, Collection<String> ids) {
    List<UUID> wanted = ids.stream().flatMap(id -> uuid(id).stream()).toList();
    return wanted.isEmpty()
        ? Set.of()
        : files.pictures(project, wanted).stream().map(UUID::toString).collect(Collectors.toSet());
  }

  private static Optional<UUID> uuid(String id) {
    return id.matches("[0-9a-fA-F]{8}(-[0-9a-fA-F]{4}){3}-[0-9a-fA-F]{12}")
        ? Optional.of(UUID.fromString(id))
        : Optional.empty();
  }

  /** Makes a picture smaller, outside of any transaction; refuses what is no picture. */
  @Transactional(propagation = org.springframework.transaction.annotation.Propagation.SUPPORTS)
  public byte[] picture(Path file, String name) throws IOException {
    if (Files.size(file) > MOST_PICTURE_BYTES)
      throw Refusal.tooLarge(
          "refused.pictureTooLarge", "name", name, "mb", MOST_PICTURE_BYTES / 1_000_000);
    return shrinking
        .shrunk(file, EDGE)
        .orElseThrow(() -> Refusal.refused("refused.noPicture", "name", name));
  }

  /** Keeps a reference picture that was made smaller. */
  @Writing
  public UUID keepPicture(UUID project, String name, byte[] jpeg, String person) {
    return keep(project, name, "image/jpeg", jpeg, person);
  }

  /** Keeps a document of guidance. */
  @Writing
  public UUID keepDocument(UUID project, String name, byte[] content, String person) {
    String ending = name.substring(name.lastIndexOf('.') + 1).toLowerCase(Locale.ROOT);
    String type = DOCUMENTS.get(ending);
    if (type == null)
      throw Refusal.refused(
          "refused.documentKind",
          "name",
          name,
          "kinds",
          String.join(", ", DOCUMENTS.keySet().stream().sorted().toList()));
    if (content.length > MOST_BYTES)
      throw Refusal.tooLarge(
          "refused.documentTooLarge", "name", name, "mb", MOST_BYTES / 1_000_000);
    return keep(project, name, type, content, person);
  }

  private UUID keep(UUID project, String name, String type, byte[] content, String person) {
    String hash = Sha256.of(content);
    String cut = name.substring(0, Math.min(LONGEST_NAME, name.length()));
    List<UUID> same = files.same(project, hash, cut);
    if (!same.isEmpty()) return same.get(0);
    if (files.bytes(project) + content.length > MOST_OF_A_PROJECT)
      throw Refusal.tooLarge("refused.formFilesFull", "mb", MOST_OF_A_PROJECT / 1_000_000);
    FormFileEntity f = new FormFileEntity();
    f.id = UUID.randomUUID();
    f.projectId = project;
    f.name = cut;
    f.mediaType = type;
    f.sha256 = hash;
    f.bytes = content.length;
    f.content = content;
    f.keptAt = Layers.now();
    f.keptBy = person;
    files.save(f);
    return f.id;
  }

  /** A form for another project, with the files that it refers to kept there too. */
  @Writing
  public Form into(Form form, UUID from, UUID to, String person) {
    if (from.equals(to) || form.files().isEmpty()) return form;
    Map<String, String> ids = new LinkedHashMap<>();
    for (String id : form.files())
      of(from, id)
          .ifPresent(
              f -> ids.put(id, keep(to, f.name(), f.mediaType(), f.content(), person).toString()));
    String json = form.json().toString();
    for (Map.Entry<String, String> e : ids.entrySet())
      json = json.replace('"' + e.getKey() + '"', '"' + e.getValue() + '"');
    return Form.read(json);
  }
}
