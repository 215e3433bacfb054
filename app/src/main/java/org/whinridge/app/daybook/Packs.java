package org.whinridge.app.daybook;

import com.github.benmanes.caffeine.cache.Cache;
import com.github.benmanes.caffeine.cache.Caffeine;
import java.time.Duration;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.UUID;
import java.util.concurrent.ConcurrentHashMap;
import org.locationtech.jts.geom.Coordinate;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.core.task.AsyncTaskExecutor;
import org.springframework.stereotype.Service;
import org.whinridge.app.form.FormsOfFiles;
import org.whinridge.app.layer.Layers;
import org.whinridge.app.round.PackSize;
import org.whinridge.app.round.PacksForRounds;
import org.whinridge.app.round.Round;
import org.whinridge.app.round.Rounds;
import org.whinridge.app.shell.Refusal;
import org.whinridge.app.shell.Sha256;

/** What a device takes offline for a round: content-hashed parts and a manifest that names them. */
@Service
class Packs implements PacksForRounds {
  private static final Logger LOG = LoggerFactory.getLogger(Packs.class);
  private static final int MOST_MANIFESTS = 500;
  private static final Duration KEPT = Duration.ofHours(12);

  private final Rounds rounds;
  private final PackParts parts;
  private final PackStamp stamps;
  private final FormsOfFiles ofFiles;
  private final RoundAssets assets;

  /** Parts as they were named in manifests, so that a device fetches what was named. */
  private final PackFiles files;

  private final AsyncTaskExecutor background;

  /** Rounds whose packs are to be made ahead. */
  private final Set<UUID> waiting = ConcurrentHashMap.newKeySet();

  /**
   * Manifests by what their packs are made of, so that many devices that ask at once have one made.
   */
  private final Cache<String, Whole> manifests =
      Caffeine.newBuilder()
          .maximumSize(MOST_MANIFESTS)
          .expireAfterWrite(KEPT)
          .executor(Runnable::run)
          .build();

  private record Whole(Pack.Manifest manifest, List<PackSize.Of> told) {}

  Packs(
      Rounds rounds,
      PackParts parts,
      PackStamp stamps,
      FormsOfFiles ofFiles,
      RoundAssets assets,
      PackFiles files,
      AsyncTaskExecutor applicationTaskExecutor) {
    this.files = files;
    this.background = applicationTaskExecutor;
    this.assets = assets;
    this.ofFiles = ofFiles;
    this.rounds = rounds;
    this.parts = parts;
    this.stamps = stamps;
  }

  /** Which parts there are. */
  Pack.Manifest manifest(UUID roundId, String person) {
    return whole(rounds.forPerson(roundId, person)).manifest;
  }

  /** What a pack is made of; when this is another, the pack may be another. */
  String stamp(Round round) {
    return stamps.of(round);
  }

  private Whole whole(Round round) {
    String stamp = stamps.of(round);
    return manifests.get(round.id() + stamp, key -> make(round, stamp));
  }

  private Whole make(Round round, String stamp) {
    List<Pack.Part> all = new ArrayList<>();
    long bytes = 0;
    PackParts.Making making = parts.of(round);
    boolean keep = files.hasRoom();
    for (String name : making.names()) {
      byte[] content = making.toldPart(name);
      String hash = Sha256.of(content);
      if (keep) files.write(round.id(), name, hash, content);
      bytes += content.length;
      all.add(new Pack.Part(name, hash, content.length));
    }
    List<PackSize.Of> told = making.told();
    return new Whole(
        new Pack.Manifest(round.id(), Layers.now(), stamp, bytes, all, Pack.Told.of(told)), told);
  }

  @Override
  public PackSize size(Round round) {
    Whole w = whole(round);
    return new PackSize(w.manifest.bytes(), w.told);
  }

  @Override
  public void ahead(List<UUID> some) {
    // one at a time, so that nothing else that waits for its turn waits for all of them
    for (UUID id : some)
      if (waiting.add(id))
        background.execute(
            () -> {
              waiting.remove(id);
              ready(id);
            });
  }

  /** Makes the pack of a round, where it is not made yet. */
  private void ready(UUID id) {
    try {
      rounds.byId(id).ifPresent(r -> files.keepOnly(id, whole(r).manifest.parts()));
    } catch (RuntimeException e) {
      LOG.warn("the pack of round {} could not be made ahead: {}", id, e.toString());
    }
  }

  /** All packs are made anew. */
  void forget() {
    manifests.invalidateAll();
    files.clear();
  }

  @Override
  public PackSize foreseen(Round round) {
    PackParts.Making making = parts.of(round);
    long bytes = 0;
    for (String name : making.names()) bytes += making.toldPart(name).length;
    return new PackSize(bytes, making.told());
  }

  /**
   * What a visit is begun with whose form came from a file; open rounds take any of the project's.
   */
  Pack.Work ofFile(UUID roundId, String hash, String person) {
    Round round = rounds.forPerson(roundId, person);
    return ofFiles
        .of(round.projectId(), hash)
        .filter(e -> round.allows().isNew())
        .map(e -> parts.work(round, e))
        .orElseThrow(() -> Refusal.notFound("thing.form"));
  }

  /** Assets that a round allows, found by a text in their caption; none where it is stops alone. */
  List<RoundAssets.Found> assets(UUID roundId, String text, String person) {
    Round round = rounds.forPerson(roundId, person);
    return round.allows().isAnyAsset() ? assets.called(round, text) : List.of();
  }

  /** The same, around a spot. */
  List<RoundAssets.Found> assets(UUID roundId, Coordinate at, double metres, String person) {
    Round round = rounds.forPerson(roundId, person);
    return round.allows().isAnyAsset() ? assets.around(round, at, metres) : List.of();
  }

  /**
   * One part's bytes: those that a manifest named, as long as they are remembered, else as they are
   * now.
   */
  byte[] part(UUID roundId, String name, String hash, String person) {
    rounds.checkForPerson(roundId, person);
    Optional<byte[]> named = files.read(roundId, name, hash);
    if (named.isPresent()) return named.get();
    Round round = rounds.forPerson(roundId, person);
    PackParts.Making making = parts.of(round);
    if (!making.names().contains(name)) throw Refusal.notFound("thing.partOfThisPack");
    return making.part(name);
  }
}
