package org.whinridge.app.daybook;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;
import java.time.Duration;
import java.time.Instant;
import java.util.Collection;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.UUID;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.stereotype.Component;
import org.springframework.util.FileSystemUtils;
import org.whinridge.app.shell.DataFolder;
import org.whinridge.app.shell.Sha256;

/**
 * Parts of packs as files beside the store, a folder for each round, so that they are there when
 * devices ask. They can be made anew at any time: one that is damaged, or can't be kept, is as good
 * as none.
 */
@Component
class PackFiles {
  private static final Logger LOG = LoggerFactory.getLogger(PackFiles.class);

  /** All rounds' files together; what comes above that is not kept. */
  private static final long MOST_BYTES = 2_000_000_000L;

  /** So long devices may go on fetching what a manifest named that is not the newest. */
  private static final Duration STAYS = Duration.ofDays(1);

  private final Path folder;

  PackFiles(DataFolder data) {
    this.folder = data.folder("packs");
    clear(); // of another version of the program, or of a store that was left
  }

  /** Removes all. */
  final void clear() {
    for (Path round : in(folder)) remove(round);
  }

  private Optional<Path> file(UUID round, String name, String hash) {
    return name.matches("[0-9a-z_-]{1,120}") && hash.matches("[0-9a-f]{64}")
        ? Optional.of(folder.resolve(round.toString()).resolve(name + "." + hash))
        : Optional.empty();
  }

  /** A part as it was named; empty when it is not here whole. */
  Optional<byte[]> read(UUID round, String name, String hash) {
    Optional<Path> file = file(round, name, hash).filter(Files::exists);
    if (file.isEmpty()) return Optional.empty();
    try {
      byte[] content = Files.readAllBytes(file.get());
      if (Sha256.of(content).equals(hash)) return Optional.of(content);
      LOG.warn("the file {} of a pack is damaged and is made anew", file.get());
      Files.deleteIfExists(file.get());
    } catch (IOException e) {
      LOG.warn("a file of a pack could not be read: {}", e.toString());
    }
    return Optional.empty();
  }

  /** Keeps a part; that it can't be kept costs time when it is asked for, and nothing else. */
  void write(UUID round, String name, String hash, byte[] content) {
    Optional<Path> file = file(round, name, hash).filter(f -> !Files.exists(f));
    if (file.isEmpty()) return;
    Path to = file.get();
    try {
      Files.createDirectories(to.getParent());
      Path part = Files.createTempFile(to.getParent(), "part", ".new");
      Files.write(part, content);
      Files.move(part, to, StandardCopyOption.ATOMIC_MOVE, StandardCopyOption.REPLACE_EXISTING);
    } catch (IOException e) {
      LOG.warn("a part of a pack could not be kept as a file: {}", e.toString());
    }
  }

  /** Whether there is room for more. */
  boolean hasRoom() {
    return bytes() < MOST_BYTES;
  }

  private long bytes() {
    long all = 0;
    for (Path round : in(folder)) for (Path file : in(round)) all += file.toFile().length();
    return all;
  }

  /** Removes what a round's parts were before, once nobody fetches it any more. */
  void keepOnly(UUID round, Collection<Pack.Part> parts) {
    Set<String> named =
        parts.stream().map(p -> p.name() + "." + p.hash()).collect(Collectors.toSet());
    Instant before = Instant.now().minus(STAYS);
    for (Path file : in(folder.resolve(round.toString())))
      if (!named.contains(file.getFileName().toString())
          && Instant.ofEpochMilli(file.toFile().lastModified()).isBefore(before)) remove(file);
  }

  /** Removes the files of all other rounds. */
  void keepRounds(Collection<UUID> open) {
    Set<String> named = open.stream().map(UUID::toString).collect(Collectors.toSet());
    for (Path round : in(folder))
      if (!named.contains(round.getFileName().toString())) remove(round);
  }

  private static List<Path> in(Path folder) {
    if (!Files.isDirectory(folder)) return List.of();
    try (Stream<Path> all = Files.list(folder)) {
      return all.toList();
    } catch (IOException e) {
      LOG.warn("the files of packs could not be listed: {}", e.toString());
      return List.of();
    }
  }

  private static void remove(Path path) {
    try {
      FileSystemUtils.deleteRecursively(path);
    } catch (IOException e) {
      LOG.warn("{} of packs stays: {}", path, e.toString());
    }
  }
}
