package org.whinridge.app.daybook;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.attribute.FileTime;
import java.time.Duration;
import java.time.Instant;
import java.util.List;
import java.util.UUID;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.mockito.Mockito;
import org.whinridge.app.shell.DataFolder;
import org.whinridge.app.shell.Sha256;

class PackFilesTest {
  private static final byte[] CONTENT = "{\"a\":1}".getBytes(StandardCharsets.UTF_8);
  private static final String HASH = Sha256.of(CONTENT);
  @TempDir Path folder;
  private PackFiles files;
  private final UUID round = UUID.randomUUID();

  @BeforeEach
  void open() {
    DataFolder data = Mockito.mock(DataFolder.class);
    Mockito.when(data.folder("packs")).thenReturn(folder);
    files = new PackFiles(data);
    files.write(round, "round", HASH, CONTENT);
  }

  private Path file() {
    return folder.resolve(round.toString()).resolve("round." + HASH);
  }

  @Test
  void aPartIsThereByItsRoundItsNameAndItsHashAlone() {
    assertThat(files.read(round, "round", HASH)).contains(CONTENT);
    assertThat(files.read(UUID.randomUUID(), "round", HASH)).isEmpty();
    assertThat(files.read(round, "map", HASH)).isEmpty();
    assertThat(files.read(round, "round", HASH.replace('a', 'b').replace('0', '1'))).isEmpty();
    assertThat(files.read(round, "../" + round + "/round", HASH)).isEmpty();
    assertThat(files.read(round, "round", "../../x")).isEmpty();
  }

  @Test
  void aDamagedPartIsAsGoodAsNone() throws Exception {
    Files.writeString(file(), "{\"a\":2}");
    assertThat(files.read(round, "round", HASH)).isEmpty();
    files.write(round, "round", HASH, CONTENT);
    assertThat(files.read(round, "round", HASH)).contains(CONTENT);
  }

  @Test
  void whatAPackWasBeforeStaysForADayAndARoundThatIsOverDoesNot() throws Exception {
    files.keepOnly(round, List.of());
    assertThat(file()).exists();
    Files.setLastModifiedTime(file(), FileTime.from(Instant.now().minus(Duration.ofHours(25))));
    files.keepOnly(round, List.of(new Pack.Part("round", HASH, CONTENT.length)));
    assertThat(file()).as("it is still named").exists();
    files.keepOnly(round, List.of());
    assertThat(file()).doesNotExist();
    files.write(round, "round", HASH, CONTENT);
    files.keepRounds(List.of(round));
    assertThat(file()).exists();
    files.keepRounds(List.of());
    assertThat(file()).doesNotExist();
  }
}
