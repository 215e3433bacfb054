package org.whinridge.app.ops;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;
import java.time.Instant;
import javax.sql.DataSource;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.scheduling.annotation.Scheduled;
import org.springframework.stereotype.Component;
import org.whinridge.app.shell.DataFolder;

/**
 * Backups while the server runs. Whoever may write into the data folder asks for one by a note in
 * it, which names the file, and finds the answer beside: so it takes neither a port nor a password.
 */
@Component
class Backups {
  /** The note that asks. */
  static final String ASKED = "backup-asked";

  /** The note that answers; its first word is "done" or "failed". */
  static final String ANSWERED = "backup-answered";

  private static final Logger LOG = LoggerFactory.getLogger(Backups.class);
  private final DataSource store;
  private final Path data;

  Backups(DataSource store, DataFolder data) {
    this.store = store;
    this.data = data.folder("");
  }

  @Scheduled(initialDelay = 2_000, fixedDelay = 1_000)
  void look() throws IOException {
    Path note = data.resolve(ASKED);
    if (!Files.exists(note)) return;
    Path to = Path.of(Files.readString(note).strip());
    Files.delete(note);
    String answer;
    try {
      BackupFile.Result r = write(to);
      answer = "done " + r.files() + " files, " + r.bytes() + " bytes";
      LOG.info("a backup was written: {}, {}", to, answer);
    } catch (IOException e) {
      answer = "failed " + BackupFile.why(e);
      LOG.error("the backup {} could not be written, and nothing is left of it", to, e);
    }
    Path part = Files.writeString(data.resolve(ANSWERED + ".part"), answer);
    Files.move(part, data.resolve(ANSWERED), StandardCopyOption.ATOMIC_MOVE);
  }

  BackupFile.Result write(Path to) throws IOException {
    Path beside = Files.createTempDirectory(data, "copy");
    try {
      StoreCopier.Copy copy = new StoreCopier(beside).make(store, Instant.now());
      return BackupFile.write(data, copy.file(), to, Instant.now());
    } finally {
      org.springframework.util.FileSystemUtils.deleteRecursively(beside);
    }
  }
}
