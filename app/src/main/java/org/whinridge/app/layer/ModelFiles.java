package org.whinridge.app.layer;

import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.ByteBuffer;
import java.nio.channels.FileChannel;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;
import java.nio.file.StandardOpenOption;
import java.util.Optional;
import java.util.UUID;
import java.util.zip.CRC32C;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.stereotype.Component;
import org.whinridge.app.shell.DataFolder;
import org.whinridge.core.read.ColumnsImage;
import org.whinridge.core.read.LayerColumns;
import org.whinridge.core.said.Unfit;

/**
 * Read models as files beside the store, one for each large layer: a head with the layer's revision
 * and the moment of its last change, the image, and its checksum (CRC-32C, RFC 3720). A file that
 * is old, damaged or of another version is as good as none; it is made anew.
 */
@Component
class ModelFiles {
  private static final Logger LOG = LoggerFactory.getLogger(ModelFiles.class);
  private static final int HEAD = 32;
  private static final long MAGIC = 0x57_48_4d_4f_44_45_4c_31L;
  private final Path folder;

  ModelFiles(DataFolder data) {
    this.folder = data.folder("models");
  }

  private Path file(Layer layer) {
    return folder.resolve(layer.id() + ".columns");
  }

  /** The model as it was kept, if it is of the layer's revision and whole. */
  Optional<LayerColumns> read(Layer layer) {
    Path file = file(layer);
    if (!Files.exists(file)) return Optional.empty();
    try (FileChannel c = FileChannel.open(file, StandardOpenOption.READ)) {
      ByteBuffer all = c.map(FileChannel.MapMode.READ_ONLY, 0, c.size());
      if (all.remaining() < HEAD
          || all.getLong() != MAGIC
          || all.getLong() != layer.revision()
          || all.getLong() != layer.changedAt().toEpochMilli()) return Optional.empty();
      long sum = all.getLong();
      ByteBuffer image = all.slice();
      CRC32C crc = new CRC32C();
      crc.update(image.duplicate());
      if (crc.getValue() != sum) throw new Unfit("refused.checksumNotContent");
      LayerColumns columns = ColumnsImage.read(image);
      if (!columns.schema().equals(layer.schema())) return Optional.empty();
      return Optional.of(columns);
    } catch (IOException | IllegalArgumentException e) {
      LOG.warn("the file of the read model of {} is made anew: {}", layer.name(), e.getMessage());
      return Optional.empty();
    }
  }

  /** Keeps a model; false when it can't be, which costs time at the next start and nothing else. */
  boolean write(Layer layer, LayerColumns columns) {
    Path part = folder.resolve(layer.id() + ".part");
    try {
      try (FileChannel c =
          FileChannel.open(
              part,
              StandardOpenOption.CREATE,
              StandardOpenOption.TRUNCATE_EXISTING,
              StandardOpenOption.WRITE)) {
        c.position(HEAD);
        CRC32C crc = new CRC32C();
        ColumnsImage.write(
            columns,
            b -> {
              crc.update(b.duplicate());
              try {
                while (b.hasRemaining()) c.write(b);
              } catch (IOException e) {
                throw new UncheckedIOException(e);
              }
            });
        ByteBuffer head = ByteBuffer.allocate(HEAD);
        head.putLong(MAGIC)
            .putLong(layer.revision())
            .putLong(layer.changedAt().toEpochMilli())
            .putLong(crc.getValue())
            .flip();
        c.write(head, 0);
        c.force(true);
        if (c.size() > Integer.MAX_VALUE) {
          Files.delete(part); // more than a buffer can map; such a layer is read from the store
          return true;
        }
      }
      Files.move(
          part, file(layer), StandardCopyOption.ATOMIC_MOVE, StandardCopyOption.REPLACE_EXISTING);
      return true;
    } catch (IOException | UncheckedIOException e) {
      LOG.warn("the read model of {} could not be kept as a file: {}", layer.name(), e.toString());
      return false;
    }
  }

  /** Deletes a layer's file; one that stays is read by nobody. */
  void drop(UUID layer) {
    try {
      Files.deleteIfExists(folder.resolve(layer + ".columns"));
    } catch (IOException e) {
      LOG.warn("the file of the read model of layer {} stays: {}", layer, e.toString());
    }
  }
}
