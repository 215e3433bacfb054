package org.whinridge.app;

import org.springframework.test.context.ActiveProfiles;

/** A server with the whole demo. */
@ActiveProfiles("demo")
abstract class DemoServerTest extends ServerTest {}
