package org.whinridge.app;

import org.springframework.boot.SpringApplication;
import org.springframework.boot.autoconfigure.SpringBootApplication;
import org.springframework.scheduling.annotation.EnableScheduling;

/** The application. Profile {@code demo} fills an empty store with the Isle of Ostrey. */
@SpringBootApplication
@EnableScheduling
public class WhinridgeApplication {
  /** Starts it. */
  public static void main(String[] args) {
    SpringApplication.run(WhinridgeApplication.class, args);
  }
}
