package org.whinridge.app;

import org.springframework.boot.SpringApplication;
import org.springframework.boot.autoconfigure.SpringBootApplication;
import org.whinridge.app.ops.StoreOpening;

/** The application. Profile {@code demo} fills an empty store with the Isle of Ostrey. */
@SpringBootApplication
public class WhinridgeApplication {
  /** Starts it. */
  public static void main(String[] args) {
    SpringApplication application = new SpringApplication(WhinridgeApplication.class);
    application.addListeners(new StoreOpening());
    application.run(args);
  }
}
