package org.whinridge.app.browser;

import java.nio.file.Path;
import org.springframework.test.context.DynamicPropertyRegistry;
import org.springframework.test.context.DynamicPropertySource;

/**
 * Stories that share one server and its store. One that needs a store of its own extends {@link
 * DemoBrowserTest}: a property that is said here is not said otherwise below.
 */
abstract class BrowserTest extends DemoBrowserTest {
  private static final Path DATA = temporary();

  @DynamicPropertySource
  static void data(DynamicPropertyRegistry r) {
    r.add("whinridge.data", DATA::toString);
  }
}
