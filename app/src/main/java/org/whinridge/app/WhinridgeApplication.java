package org.whinridge.app;

import org.springframework.boot.autoconfigure.SpringBootApplication;
import org.whinridge.app.ops.BackupCommand;
import org.whinridge.app.ops.Starting;

/** The application. Profile {@code demo} fills an empty store with the Isle of Ostrey. */
@SpringBootApplication
public class WhinridgeApplication {
  /** Starts it; or, with {@code backup FILE DATA} or {@code restore FILE DATA}, does that alone. */
  public static void main(String[] args) {
    if (BackupCommand.isOne(args)) System.exit(BackupCommand.run(System.out, args));
    Starting.start(WhinridgeApplication.class, args);
  }
}
