package org.whinridge.app.photo;

import java.awt.image.BufferedImage;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.channels.FileChannel;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;
import java.nio.file.StandardOpenOption;
import java.util.Collection;
import java.util.List;
import java.util.Optional;
import java.util.UUID;
import net.coobird.thumbnailator.Thumbnails;
import org.springframework.beans.factory.annotation.Value;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import org.whinridge.app.layer.Layers;
import org.whinridge.app.shell.DataFolder;
import org.whinridge.app.shell.Refusal;
import org.whinridge.app.shell.Sha256;

/** Photos by content hash. Their bytes are final on the device and are never rewritten here. */
@Service
public class Photos {
  /** The longer edge of the small picture shown at the desk, pixels. */
  private static final int SMALL_EDGE = 900;

  private final PhotoRepository repository;
  private final Path folder;
  private final Path small;
  private final long limit;

  Photos(
      PhotoRepository repository, DataFolder data, @Value("${whinridge.photo-limit}") long limit) {
    this.repository = repository;
    this.folder = data.folder("photos");
    this.small = data.folder("photos-small");
    this.limit = limit;
  }

  private static Photo of(PhotoEntity e) {
    return new Photo(
        e.id, e.visitId, e.question, e.sha256, e.bytes, e.geotag, e.receivedAt != null);
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

  /** One photo. */
  @Transactional(readOnly = true)
  public Optional<Photo> find(UUID id) {
    return repository.findById(id).map(Photos::of);
  }

  /**
   * Announces a photo that a visit has; announced again it stays as it is. A photo whose bytes are
   * here already (same hash) is complete at once.
   */
  @Transactional
  public void announce(
      UUID id, UUID visit, String question, String sha256, long bytes, String geotag, int place) {
    Optional<PhotoEntity> there = repository.findById(id);
    if (there.isPresent()) {
      if (!there.get().visitId.equals(visit) || !there.get().sha256.equals(sha256))
        throw new IllegalArgumentException("photo " + id + " is known already with other content");
      return;
    }
    PhotoEntity e = new PhotoEntity();
    e.id = id;
    e.visitId = visit;
    e.question = question;
    e.sha256 = sha256;
    e.bytes = bytes;
    e.geotag = geotag;
    e.placeInVisit = place;
    e.receivedAt = Files.exists(file(sha256)) ? Layers.now() : null;
    repository.save(e);
  }

  /**
   * Takes a complete upload as the bytes of a photo: hash and length must be the announced ones.
   * The file is synced to disk and renamed before the row says it is here, so that an acknowledged
   * photo survives a power cut.
   */
  @Transactional
  public void receive(UUID id, Path upload) throws IOException {
    PhotoEntity e = repository.findById(id).orElseThrow(() -> Refusal.notFound("photo"));
    if (Files.size(upload) != e.bytes || !Sha256.of(upload).equals(e.sha256))
      throw Refusal.refused(
          "The photo arrived damaged: its content is not what the device announced. It will be sent again.");
    Path target = file(e.sha256);
    Files.createDirectories(target.getParent());
    try (FileChannel c = FileChannel.open(upload, StandardOpenOption.WRITE)) {
      c.force(true);
    }
    Files.move(upload, target, StandardCopyOption.ATOMIC_MOVE, StandardCopyOption.REPLACE_EXISTING);
    try (FileChannel c = FileChannel.open(target.getParent(), StandardOpenOption.READ)) {
      c.force(true);
    }
    e.receivedAt = Layers.now();
    repository.save(e);
  }

  /** Forgets the photos of visits that are taken away; their bytes stay on disk. */
  @Transactional
  public void forget(Collection<UUID> visits) {
    if (!visits.isEmpty())
      repository.deleteAll(repository.findByVisitIdInOrderByPlaceInVisit(visits));
  }

  private Path file(String sha256) {
    if (!sha256.matches("[0-9a-f]{64}"))
      throw new IllegalArgumentException("this is not a SHA-256: " + sha256);
    return folder.resolve(sha256.substring(0, 2)).resolve(sha256 + ".jpg");
  }

  /** The bytes of a photo; empty when they have not arrived. */
  public Optional<Path> bytes(Photo photo) {
    Path p = file(photo.sha256());
    return Files.exists(p) ? Optional.of(p) : Optional.empty();
  }

  /**
   * A small picture of a photo, turned as its EXIF says; made once. Empty when the bytes have not
   * arrived or are no picture.
   */
  public Optional<byte[]> smallPicture(Photo photo) {
    Path kept = small.resolve(photo.sha256() + ".jpg");
    try {
      if (Files.exists(kept)) return Optional.of(Files.readAllBytes(kept));
      Optional<Path> full = bytes(photo);
      if (full.isEmpty() || !plausible(full.get())) return Optional.empty();
      ByteArrayOutputStream out = new ByteArrayOutputStream();
      Thumbnails.of(full.get().toFile())
          .size(SMALL_EDGE, SMALL_EDGE)
          .imageType(BufferedImage.TYPE_INT_RGB)
          .outputFormat("jpg")
          .outputQuality(0.8)
          .toOutputStream(out);
      Path part = Files.createTempFile(small, "part", ".jpg");
      Files.write(part, out.toByteArray());
      Files.move(part, kept, StandardCopyOption.ATOMIC_MOVE, StandardCopyOption.REPLACE_EXISTING);
      return Optional.of(out.toByteArray());
    } catch (net.coobird.thumbnailator.tasks.UnsupportedFormatException e) {
      return Optional.empty(); // not a picture: the original can still be downloaded
    } catch (IOException e) {
      throw new UncheckedIOException(e);
    }
  }

  /**
   * Whether the picture's own size is one that can be opened in memory: at most 120 million pixels.
   */
  private static boolean plausible(Path file) throws IOException {
    try (var in = javax.imageio.ImageIO.createImageInputStream(file.toFile())) {
      var readers = javax.imageio.ImageIO.getImageReaders(in);
      if (!readers.hasNext()) return false;
      var reader = readers.next();
      try {
        reader.setInput(in);
        return (long) reader.getWidth(0) * reader.getHeight(0) <= 120_000_000L;
      } finally {
        reader.dispose();
      }
    }
  }
}
