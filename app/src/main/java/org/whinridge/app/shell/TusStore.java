package org.whinridge.app.shell;

import java.io.IOException;
import java.io.InputStream;
import java.nio.ByteBuffer;
import java.nio.channels.FileChannel;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;
import java.nio.file.StandardOpenOption;
import java.time.Duration;
import java.time.Instant;
import java.util.Map;
import java.util.UUID;
import java.util.concurrent.ConcurrentHashMap;
import org.springframework.scheduling.annotation.Scheduled;
import org.springframework.stereotype.Component;

/**
 * Unfinished uploads on disk (tus 1.0.0). The length of the data file is the offset; the newest
 * request on an upload supersedes a stalled one by an epoch number, so that nobody waits for a dead
 * connection.
 */
@Component
class TusStore {
  static final Duration KEPT = Duration.ofDays(14);
  private final Path folder;
  private final Map<UUID, Active> active = new ConcurrentHashMap<>();

  /** What is known of an upload besides its bytes. */
  record Info(UUID id, long length, Instant expires, String owner, String about) {}

  /** An upload's newest request. */
  private static final class Active {
    long epoch;
  }

  TusStore(DataFolder data) {
    this.folder = data.folder("uploads");
  }

  Info create(long length, String owner, String about) throws IOException {
    Info i = new Info(UUID.randomUUID(), length, Instant.now().plus(KEPT), owner, about);
    Files.createFile(data(i.id()));
    Path part = folder.resolve(i.id() + ".part");
    try (FileChannel c =
        FileChannel.open(part, StandardOpenOption.CREATE_NEW, StandardOpenOption.WRITE)) {
      c.write(
          ByteBuffer.wrap(
              (length + "\n" + i.expires().toEpochMilli() + "\n" + owner + "\n" + about)
                  .getBytes(StandardCharsets.UTF_8)));
      c.force(true);
    }
    Files.move(part, info(i.id()), StandardCopyOption.ATOMIC_MOVE);
    return i;
  }

  Info find(UUID id, String owner) throws IOException, TusRefusal {
    if (!Files.exists(info(id))) throw new TusRefusal(404, "this upload is not here");
    String[] s = Files.readString(info(id)).split("\n", 4);
    Info i =
        new Info(id, Long.parseLong(s[0]), Instant.ofEpochMilli(Long.parseLong(s[1])), s[2], s[3]);
    if (!i.owner().equals(owner)) throw new TusRefusal(404, "this upload is not here");
    if (i.expires().isBefore(Instant.now()))
      throw new TusRefusal(410, "this upload was begun too long ago");
    return i;
  }

  /** The offset, and from now on no older request writes any more. */
  long offset(UUID id) throws IOException {
    Active a = active.computeIfAbsent(id, x -> new Active());
    synchronized (a) {
      a.epoch++;
      return Files.size(data(id));
    }
  }

  /**
   * Appends a request's bytes and syncs them; gives the new offset. What arrived before a cut
   * stays.
   */
  long append(Info i, long at, InputStream in) throws IOException, TusRefusal {
    Active a = active.computeIfAbsent(i.id(), x -> new Active());
    long mine;
    synchronized (a) {
      if (Files.size(data(i.id())) != at)
        throw new TusRefusal(409, "the upload stands at another offset");
      mine = ++a.epoch;
    }
    long n = at;
    byte[] buffer = new byte[65536];
    try (FileChannel c = FileChannel.open(data(i.id()), StandardOpenOption.WRITE)) {
      c.position(at);
      try {
        for (int k = in.read(buffer); k > 0; k = in.read(buffer)) {
          if (n + k > i.length()) throw new TusRefusal(413, "more bytes than announced");
          synchronized (a) {
            if (a.epoch != mine) throw new TusRefusal(409, "a newer request has taken over");
            ByteBuffer b = ByteBuffer.wrap(buffer, 0, k);
            while (b.hasRemaining()) c.write(b);
          }
          n += k;
        }
      } finally {
        c.force(true);
      }
    }
    return n;
  }

  /** The bytes of an upload, to be moved away when it is complete. */
  Path data(UUID id) {
    return folder.resolve(id + ".bin");
  }

  private Path info(UUID id) {
    return folder.resolve(id + ".info");
  }

  void remove(UUID id) throws IOException {
    Active a = active.computeIfAbsent(id, x -> new Active());
    synchronized (a) {
      a.epoch++;
    }
    Files.deleteIfExists(data(id));
    Files.deleteIfExists(info(id));
    active.remove(id);
  }

  /** Drops uploads that ran out. */
  @Scheduled(initialDelay = 90_000, fixedDelay = 3_600_000)
  void sweep() throws IOException {
    try (var all = Files.list(folder)) {
      for (Path p : all.toList())
        if (Files.getLastModifiedTime(p).toInstant().isBefore(Instant.now().minus(KEPT)))
          Files.deleteIfExists(p);
    }
  }
}
