package org.whinridge.app.photo;

import com.eclipsesource.json.JsonObject;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;
import java.nio.file.attribute.FileTime;
import java.time.Duration;
import java.time.Instant;
import java.time.temporal.ChronoUnit;
import java.util.ArrayList;
import java.util.Collection;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.UUID;
import java.util.stream.Stream;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.beans.factory.annotation.Value;
import org.springframework.core.task.AsyncTaskExecutor;
import org.springframework.scheduling.annotation.Scheduled;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import org.springframework.transaction.support.TransactionSynchronization;
import org.springframework.transaction.support.TransactionSynchronizationManager;
import org.springframework.transaction.support.TransactionTemplate;
import org.whinridge.app.layer.Layers;
import org.whinridge.app.shell.DataFolder;
import org.whinridge.app.shell.Durable;
import org.whinridge.app.shell.Locks;
import org.whinridge.app.shell.Refusal;
import org.whinridge.app.shell.Sha256;
import org.whinridge.core.said.Unfit;
import org.whinridge.formats.photos.PhotoFacts;

/** Photos by content hash. Their bytes are final on the device and are never rewritten here. */
@Service
public class Photos {
  private static final Duration KEPT_ASIDE = Duration.ofDays(30);
  private static final Logger LOG = LoggerFactory.getLogger(Photos.class);
  private final PhotoRepository repository;
  private final Locks locks;
  private final SmallPictures pictures;
  private final Path folder;
  private final Path aside;
  private final AsyncTaskExecutor background;
  private final long limit;
  private final long mostBytesADay;
  private final TransactionTemplate transaction;

  Photos(
      PhotoRepository repository,
      Locks locks,
      SmallPictures pictures,
      DataFolder data,
      TransactionTemplate transaction,
      AsyncTaskExecutor applicationTaskExecutor,
      @Value("${whinridge.photo-limit}") long limit,
      @Value("${whinridge.photos-a-day}") long mostBytesADay) {
    this.repository = repository;
    this.locks = locks;
    this.pictures = pictures;
    this.folder = data.folder("photos");
    this.aside = data.folder("photos-taken-back");
    this.transaction = transaction;
    this.background = applicationTaskExecutor;
    this.limit = limit;
    this.mostBytesADay = mostBytesADay;
  }

  private static Photo of(PhotoEntity e) {
    return new Photo(
        e.id,
        Optional.ofNullable(e.visitId),
        e.visitId == null
            ? Optional.of(new Photo.OfFeature(e.layerId, e.featureId))
            : Optional.empty(),
        e.question,
        e.sha256,
        e.bytes,
        e.geotag,
        Optional.ofNullable(e.receivedAt));
  }

  /** The largest photo taken, bytes. */
  public long limit() {
    return limit;
  }

  /** The photos of some visits, in the order of each visit. */
  @Transactional(readOnly = true)
  public List<Photo> of(Collection<UUID> visits) {
    return visits.isEmpty()
        ? List.of()
        : repository.findByVisitIdInOrderByPlaceInVisit(visits).stream().map(Photos::of).toList();
  }

  /** The pictures of some features that came with the file of their layer. */
  @Transactional(readOnly = true)
  public List<Photo> ofFeatures(UUID layer, Collection<UUID> features) {
    return features.isEmpty()
        ? List.of()
        : repository
            .findByLayerIdAndFeatureIdInOrderByFeatureIdAscPlaceInVisitAsc(layer, features)
            .stream()
            .map(Photos::of)
            .toList();
  }

  /** All pictures of a layer's features that came with its file. */
  @Transactional(readOnly = true)
  public List<Photo> ofLayer(UUID layer) {
    return repository.findByLayerIdOrderByFeatureIdAscPlaceInVisitAsc(layer).stream()
        .map(Photos::of)
        .toList();
  }

  /**
   * Keeps pictures that came with a layer's file as pictures of its features, all or none: the
   * bytes first, synced, then the rows.
   *
   * @param pictures JPEG files of each feature, in order
   */
  public void keep(UUID layer, String person, Map<UUID, List<Path>> pictures) throws IOException {
    List<PhotoEntity> rows = new ArrayList<>();
    for (Map.Entry<UUID, List<Path>> p : pictures.entrySet()) {
      int place = 0;
      for (Path file : p.getValue()) {
        PhotoEntity e = new PhotoEntity();
        e.id = UUID.randomUUID();
        e.layerId = layer;
        e.featureId = p.getKey();
        e.question = "picture";
        e.sha256 = Sha256.of(file);
        e.bytes = Files.size(file);
        e.geotag = geotag(file).toString();
        e.placeInVisit = place++;
        e.person = person;
        e.deviceId = "";
        e.receivedAt = Layers.now();
        Durable.keep(file, file(e.sha256));
        rows.add(e);
      }
    }
    transaction.executeWithoutResult(t -> repository.saveAll(rows));
  }

  private static JsonObject geotag(Path file) throws IOException {
    JsonObject out = new JsonObject();
    PhotoFacts.read(Files.readAllBytes(file))
        .ifPresent(
            f -> {
              f.place().ifPresent(c -> out.add("lat", c.y).add("lon", c.x));
              f.directionDeg().ifPresent(d -> out.add("direction", d));
              f.altitudeM().ifPresent(d -> out.add("altitude", d));
              f.taken().ifPresent(t -> out.add("at", t.toString()));
            });
    return out;
  }

  /** Forgets the pictures of a layer's features, as {@link #forget(Collection)} does. */
  @Transactional
  public void forgetOfLayer(UUID layer) {
    forgotten(repository.findByLayerIdOrderByFeatureIdAscPlaceInVisitAsc(layer));
  }

  /** One photo. */
  @Transactional(readOnly = true)
  public Optional<Photo> find(UUID id) {
    return repository.findById(id).map(Photos::of);
  }

  /** Who may send the bytes of a photo: the person who announced it, and on which device. */
  public record Sender(String person, String deviceId) {}

  /** What a visit says of one of its photos. */
  public record Announced(
      UUID id, String question, String sha256, long bytes, String geotag, int place) {}

  /**
   * Announces photos that a visit has; announced again they stay as they are. That somebody knows a
   * hash gives nobody its bytes: each photo is received from its own sender.
   */
  @Transactional
  public void announce(UUID visit, List<Announced> photos, Sender by) {
    Map<UUID, PhotoEntity> there = new LinkedHashMap<>();
    repository
        .findAllById(photos.stream().map(Announced::id).toList())
        .forEach(e -> there.put(e.id, e));
    List<PhotoEntity> fresh = new ArrayList<>();
    for (Announced p : photos) {
      PhotoEntity known = there.get(p.id());
      if (known != null && (!visit.equals(known.visitId) || !known.sha256.equals(p.sha256())))
        throw new Unfit("refused.photoOfOtherContent", "id", p.id());
      if (known == null) fresh.add(entity(visit, p, by));
    }
    repository.saveAll(fresh);
  }

  private static PhotoEntity entity(UUID visit, Announced p, Sender by) {
    PhotoEntity e = new PhotoEntity();
    e.id = p.id();
    e.visitId = visit;
    e.question = p.question();
    e.sha256 = p.sha256();
    e.bytes = p.bytes();
    e.geotag = p.geotag();
    e.placeInVisit = p.place();
    e.person = by.person();
    e.deviceId = by.deviceId();
    return e;
  }

  /** A photo that waits for its bytes from this sender; empty when it is not this sender's. */
  @Transactional(readOnly = true)
  public Optional<Photo> awaited(UUID id, Sender from) {
    return repository
        .findById(id)
        .filter(e -> e.person.equals(from.person()))
        .filter(e -> e.deviceId.isEmpty() || e.deviceId.equals(from.deviceId()))
        .map(Photos::of);
  }

  /**
   * Refuses another photo from somebody who has sent as much as one person may on a day.
   *
   * @param open the bytes of what this person is sending besides
   */
  @Transactional(readOnly = true)
  public void bounded(String person, long open) {
    Instant day = Layers.now().truncatedTo(ChronoUnit.DAYS);
    if (repository.bytesSince(person, day) + open >= mostBytesADay)
      throw Refusal.tooMuch(
          "refused.sentMbPhotosToday", "person", person, "mb", mostBytesADay / 1_000_000);
  }

  /**
   * Takes a complete upload as the bytes of a photo: hash and length must be the announced ones.
   * The file is synced to disk under its hash before the row says it is here, so that an
   * acknowledged photo survives a power cut; what is taken already is taken once. What was
   * announced of a photo never changes, so nothing is locked while its bytes are read and synced.
   */
  public void receive(UUID id, Path upload) throws IOException {
    PhotoEntity announced =
        repository.findById(id).orElseThrow(() -> Refusal.notFound("thing.photo"));
    if (announced.receivedAt != null) return;
    if (Files.size(upload) != announced.bytes || !Sha256.of(upload).equals(announced.sha256))
      throw Refusal.refused("refused.photoArrivedDamagedContent");
    Durable.keep(upload, file(announced.sha256));
    transaction.executeWithoutResult(
        t -> {
          PhotoEntity e =
              locks.lock(PhotoEntity.class, id).orElseThrow(() -> Refusal.notFound("thing.photo"));
          if (e.receivedAt == null) e.receivedAt = Layers.now();
        });
  }

  /**
   * Forgets the photos of visits that are taken away. Once that is committed, bytes that no other
   * photo has are put aside, and deleted when {@link #KEPT_ASIDE} is over, so that going back to a
   * copy of the store finds them still.
   */
  @Transactional
  public void forget(Collection<UUID> visits) {
    if (visits.isEmpty()) return;
    forgotten(repository.findByVisitIdInOrderByPlaceInVisit(visits));
  }

  private void forgotten(List<PhotoEntity> gone) {
    if (gone.isEmpty()) return;
    repository.deleteAll(gone);
    List<String> hashes = gone.stream().map(e -> e.sha256).distinct().toList();
    TransactionSynchronizationManager.registerSynchronization(
        new TransactionSynchronization() {
          @Override
          public void afterCommit() {
            background.execute(() -> hashes.forEach(Photos.this::putAside));
          }
        });
  }

  /**
   * Photos with these hashes are gone with their project: bytes that no other has are put aside.
   */
  public void unnamed(Collection<String> hashes) {
    hashes.forEach(this::putAside);
  }

  /** What fails here leaves a file behind that nobody asks for, and is not told as a failure. */
  private void putAside(String sha256) {
    try {
      Path file = file(sha256);
      if (!Files.exists(file) || repository.existsBySha256(sha256)) return;
      Path to = aside.resolve(sha256 + ".jpg");
      Files.move(file, to, StandardCopyOption.REPLACE_EXISTING);
      Files.setLastModifiedTime(to, FileTime.from(Instant.now()));
    } catch (IOException | RuntimeException e) {
      LOG.warn("the bytes of a photo that was taken back stay where they are: {}", e.toString());
    }
  }

  /**
   * Deletes what was put aside long ago. What a photo has by now, since the same picture came again
   * or the store went back to a copy, returns to its place.
   */
  @Scheduled(initialDelay = 120_000, fixedDelay = 86_400_000)
  void sweep() throws IOException {
    Instant before = Instant.now().minus(KEPT_ASIDE);
    try (Stream<Path> all = Files.list(aside)) {
      for (Path p : all.toList()) {
        String sha256 = p.getFileName().toString().replace(".jpg", "");
        if (repository.existsBySha256(sha256)) {
          if (Files.exists(file(sha256))) Files.delete(p);
          else Files.move(p, file(sha256));
        } else if (Files.getLastModifiedTime(p).toInstant().isBefore(before))
          Files.deleteIfExists(p);
      }
    }
  }

  private Path file(String sha256) {
    if (!sha256.matches("[0-9a-f]{64}")) throw new Unfit("refused.notSha", "sha256", sha256);
    return folder.resolve(sha256.substring(0, 2)).resolve(sha256 + ".jpg");
  }

  /** The bytes of a photo; empty when they have not arrived. */
  public Optional<Path> bytes(Photo photo) {
    Path p = file(photo.sha256());
    if (Files.exists(p)) return Optional.of(p);
    Path put = aside.resolve(photo.sha256() + ".jpg");
    return Files.exists(put) ? Optional.of(put) : Optional.empty();
  }

  /**
   * A small picture of a photo, turned as its EXIF says; made once. Empty when the bytes have not
   * arrived or are no picture.
   */
  public Optional<byte[]> smallPicture(Photo photo) {
    return pictures.of(photo.sha256(), bytes(photo));
  }
}
