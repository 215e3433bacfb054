package org.whinridge.app.shell;

import java.io.IOException;
import java.io.InputStream;
import java.nio.ByteBuffer;
import java.nio.channels.FileChannel;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.NoSuchFileException;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;
import java.nio.file.StandardOpenOption;
import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Map;
import java.util.UUID;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.locks.ReentrantLock;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.scheduling.annotation.Scheduled;
import org.springframework.stereotype.Component;
import org.whinridge.core.said.Said;

/**
 * Unfinished uploads on disk (tus 1.0.0). The length of the data file is the offset; the newest
 * request on an upload supersedes a stalled one by an epoch number, so that nobody waits for a dead
 * connection.
 */
@Component
class TusStore {
  static final Duration KEPT = Duration.ofDays(14);

  /**
   * A sender that lost the address of its upload begins another; more than so many make no sense.
   */
  private static final int MOST_FOR_ONE_THING = 3;

  /** Beyond so many, the oldest uploads of one owner make room; they can be begun again. */
  private static final int MOST_OF_ONE_OWNER = 500;

  private static final Logger LOG = LoggerFactory.getLogger(TusStore.class);
  private final Path folder;
  private final Map<UUID, Active> active = new ConcurrentHashMap<>();

  /** What is known of an upload besides its bytes. */
  record Info(UUID id, long length, Instant expires, String owner, String about) {}

  /** An upload's newest request. */
  private static final class Active {
    long epoch;
    final ReentrantLock ending = new ReentrantLock();
  }

  /** What is done with an upload that has all its bytes. */
  interface Ending {
    void end() throws IOException, TusRefusal;
  }

  TusStore(DataFolder data) {
    this.folder = data.folder("uploads");
  }

  /** Begins an upload; of several for the same thing the oldest make room. */
  Info create(long length, String owner, String about) throws IOException {
    List<Info> own = new ArrayList<>(all().stream().filter(i -> i.owner().equals(owner)).toList());
    own.sort(Comparator.comparing(Info::expires));
    makeRoom(own.stream().filter(i -> i.about().equals(about)).toList(), MOST_FOR_ONE_THING);
    makeRoom(own, MOST_OF_ONE_OWNER);
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

  private void makeRoom(List<Info> oldestFirst, int most) throws IOException {
    for (int k = 0; k <= oldestFirst.size() - most; k++) remove(oldestFirst.get(k).id());
  }

  /** The bytes, as announced, of one owner's uploads at one address that are begun and not over. */
  long open(String owner, String home) throws IOException {
    return all().stream()
        .filter(i -> i.owner().equals(owner) && i.about().startsWith(home + "|"))
        .mapToLong(Info::length)
        .sum();
  }

  Info find(UUID id, String owner) throws IOException, TusRefusal {
    if (!Files.exists(info(id))) throw new TusRefusal(404, Said.of("refused.uploadNotHere"));
    Info i = read(id);
    if (!i.owner().equals(owner)) throw new TusRefusal(404, Said.of("refused.uploadNotHere"));
    if (i.expires().isBefore(Instant.now()))
      throw new TusRefusal(410, Said.of("refused.uploadWasBegunToo"));
    return i;
  }

  private Info read(UUID id) throws IOException {
    String[] s = Files.readString(info(id)).split("\n", 4);
    return new Info(
        id, Long.parseLong(s[0]), Instant.ofEpochMilli(Long.parseLong(s[1])), s[2], s[3]);
  }

  /** All uploads that are begun and not over. */
  List<Info> all() throws IOException {
    List<Info> out = new ArrayList<>();
    try (var files = Files.list(folder)) {
      for (Path p : files.filter(f -> f.toString().endsWith(".info")).toList()) {
        String name = p.getFileName().toString();
        try {
          out.add(read(UUID.fromString(name.substring(0, name.length() - 5))));
        } catch (NoSuchFileException e) {
          LOG.debug("upload {} came to its end meanwhile", name);
        }
      }
    }
    return out;
  }

  /** Whether all bytes of an upload are here. */
  boolean isWhole(Info i) throws IOException {
    return Files.exists(data(i.id())) && Files.size(data(i.id())) == i.length();
  }

  /**
   * Ends an upload that has all its bytes: by whoever comes first, while others wait. What {@code
   * ending} does must bear being done again, since the server may be killed after it and before the
   * upload is forgotten.
   *
   * @return false when somebody else had ended it already
   */
  boolean end(Info i, Ending ending) throws IOException, TusRefusal {
    Active a = active.computeIfAbsent(i.id(), x -> new Active());
    a.ending.lock();
    try {
      if (!Files.exists(info(i.id()))) return false;
      if (!Files.exists(data(i.id()))) {
        remove(i.id());
        throw new TusRefusal(410, Said.of("refused.uploadOver"));
      }
      try {
        ending.end();
      } catch (Refusal e) {
        remove(i.id()); // it is damaged or not wanted: the sender begins anew if it must
        throw e;
      }
      remove(i.id());
      return true;
    } finally {
      a.ending.unlock();
    }
  }

  /** The offset, and from now on no older request writes any more. */
  long offset(UUID id) throws IOException, TusRefusal {
    if (!Files.exists(data(id))) {
      remove(id); // taken before the server was killed; nothing is left of it but its note
      throw new TusRefusal(410, Said.of("refused.uploadOver"));
    }
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
    if (!Files.exists(data(i.id()))) throw new TusRefusal(410, Said.of("refused.uploadOver"));
    Active a = active.computeIfAbsent(i.id(), x -> new Active());
    long mine;
    synchronized (a) {
      if (Files.size(data(i.id())) != at)
        throw new TusRefusal(409, Said.of("refused.uploadStandsAtAnother"));
      mine = ++a.epoch;
    }
    long n = at;
    byte[] buffer = new byte[65536];
    try (FileChannel c = FileChannel.open(data(i.id()), StandardOpenOption.WRITE)) {
      c.position(at);
      try {
        for (int k = in.read(buffer); k > 0; k = in.read(buffer)) {
          if (n + k > i.length())
            throw new TusRefusal(413, Said.of("refused.moreBytesThanAnnounced"));
          synchronized (a) {
            if (a.epoch != mine)
              throw new TusRefusal(409, Said.of("refused.newerRequestTakenOver"));
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
