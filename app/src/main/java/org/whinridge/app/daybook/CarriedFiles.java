package org.whinridge.app.daybook;

import com.eclipsesource.json.JsonValue;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.UUID;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.stereotype.Service;
import org.whinridge.app.layer.Layers;
import org.whinridge.app.photo.Photo;
import org.whinridge.app.photo.Photos;
import org.whinridge.app.project.Project;
import org.whinridge.app.shell.DataFolder;
import org.whinridge.app.shell.Refusal;
import org.whinridge.core.access.Names;
import org.whinridge.core.visit.VisitState;

/**
 * Brings in what a device carried when it comes as a file, since the device can't hand it in by
 * itself any more. Only what belongs to the project into which it is brought is taken; brought
 * again, nothing is there twice.
 */
@Service
public class CarriedFiles {
  private static final Logger LOG = LoggerFactory.getLogger(CarriedFiles.class);

  /** So many visits are handed in at once. */
  private static final int PART = 100;

  private final HandIns handIns;
  private final Visits visits;
  private final Layers layers;
  private final Photos photos;
  private final Path scratch;

  CarriedFiles(HandIns handIns, Visits visits, Layers layers, Photos photos, DataFolder data) {
    this.layers = layers;
    this.handIns = handIns;
    this.visits = visits;
    this.photos = photos;
    this.scratch = data.folder("scratch");
  }

  /**
   * What came of a file.
   *
   * @param visits that the office has now, whether they came with this file or were here
   * @param setAside texts that could not be read as visits and wait for somebody
   * @param elsewhere visits of other projects, which were not taken
   * @param busy visits that could not be kept now; the file can be brought in again
   * @param photos that are here now
   * @param unwanted photos whose bytes are damaged, or that no visit taken here has
   */
  public record Brought(
      String person,
      String device,
      int visits,
      int setAside,
      int elsewhere,
      int busy,
      int photos,
      int unwanted) {}

  /** Brings a file in. */
  public Brought bring(Project project, Path file, String by) throws IOException {
    try (CarriedFile carried = CarriedFile.open(file)) {
      String person =
          Names.of(carried.person()).orElseThrow(() -> Refusal.refused("refused.carriedDamaged"));
      List<JsonValue> here = new ArrayList<>();
      for (JsonValue v : carried.visits())
        if (handIns.projectOf(v).filter(project.id()::equals).isPresent()) here.add(v);
      int kept = 0;
      int setAside = 0;
      int busy = 0;
      for (int i = 0; i < here.size(); i += PART) {
        List<JsonValue> part = here.subList(i, Math.min(here.size(), i + PART));
        for (VisitAnswer a :
            handIns.bringIn(carried.handIn(part), person, project.id(), by).visits())
          if (a.state().equals(VisitAnswer.BUSY)) busy++;
          else if (a.state().equals(VisitState.SET_ASIDE.id())) setAside++;
          else kept++;
      }
      int[] pictures = photos(carried, project, person);
      LOG.info("{} brought in what {} carried on {}", by, person, carried.device());
      return new Brought(
          person,
          carried.device(),
          kept,
          setAside,
          carried.visits().size() - here.size(),
          busy,
          pictures[0],
          pictures[1]);
    } catch (IOException | RuntimeException e) {
      throw e;
    } catch (Exception e) {
      throw new IllegalStateException("a carried file can't be brought in", e);
    }
  }

  /** How many photos of it are here now, and how many were not taken. */
  private int[] photos(CarriedFile carried, Project project, String person) throws IOException {
    int[] n = new int[2];
    Path bytes = Files.createTempFile(Files.createDirectories(scratch), "carried", ".jpg");
    try {
      for (UUID id : carried.photos()) n[taken(carried, id, project, person, bytes) ? 0 : 1]++;
    } finally {
      Files.deleteIfExists(bytes);
    }
    return n;
  }

  private boolean isOf(Visit v, Project project, String person) {
    return v.person().equals(person) && layers.byId(v.layerId()).projectId().equals(project.id());
  }

  private boolean taken(CarriedFile carried, UUID id, Project project, String person, Path bytes)
      throws IOException {
    Optional<Photo> photo =
        photos
            .find(id)
            .filter(
                p ->
                    p.visitId().map(visits::get).filter(v -> isOf(v, project, person)).isPresent());
    if (photo.isEmpty()) return false;
    if (photo.get().received()) return true;
    if (!carried.write(id, photo.get().bytes(), bytes)) return false;
    try {
      photos.receive(id, bytes);
      return true;
    } catch (Refusal e) {
      return false; // its bytes are not those that the visit announced
    }
  }
}
