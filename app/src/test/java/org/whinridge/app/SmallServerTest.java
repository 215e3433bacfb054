package org.whinridge.app;

import org.springframework.context.annotation.Import;

/** A server with the little that {@link SmallProject} says. */
@Import(SmallProject.class)
abstract class SmallServerTest extends ServerTest {}
