package org.whinridge.core.access;

import static org.whinridge.core.access.Role.COORDINATOR;
import static org.whinridge.core.access.Role.INSPECTOR;
import static org.whinridge.core.access.Role.READER;
import static org.whinridge.core.access.Role.REVIEWER;

import java.util.List;
import java.util.Set;
import org.whinridge.core.text.Word;

/**
 * What can be done in a project, and by whom. This list decides it; every address of the
 * application names the right that it needs.
 */
public enum Right implements Word {
  /** Layers with all their fields, maps, ledger, forms; outputs. */
  SEE_REGISTER("seeRegister", COORDINATOR, REVIEWER, READER),
  /** Rounds with their notes, visits that are not accepted yet, and their photos. */
  SEE_WORK("seeWork", COORDINATOR, REVIEWER),
  /** What visits write to the layers; what was set aside. */
  REVIEW("review", COORDINATOR, REVIEWER),
  /** Layers, their features, fields and looks; the project's map; files brought in. */
  CHANGE_LAYERS("changeLayers", COORDINATOR),
  /** Forms and their editions. */
  BUILD_FORMS("buildForms", COORDINATOR),
  /** Rounds. */
  PLAN_ROUNDS("planRounds", COORDINATOR),
  /** The project's name, people and devices. */
  MANAGE("manage", COORDINATOR),
  /** The own rounds, outdoors, and the visits made there. */
  GO_OUT("goOut", COORDINATOR, INSPECTOR);

  private final String id;
  private final List<Role> roles;

  Right(String id, Role... roles) {
    this.id = id;
    this.roles = List.of(roles);
  }

  @Override
  public String id() {
    return id;
  }

  /**
   * Whether it can be done in a project that is closed: what is there can be seen, people be cared
   * for, and what was carried when it was closed be handed in.
   */
  public boolean whenClosed() {
    return this == SEE_REGISTER || this == SEE_WORK || this == MANAGE || this == GO_OUT;
  }

  /** Whether somebody who is all of these may do it. */
  public boolean isOf(Set<Role> somebody) {
    return roles.stream().anyMatch(somebody::contains);
  }
}
