package org.whinridge.core.access;

import java.util.Collection;
import java.util.EnumSet;
import java.util.Set;
import org.whinridge.core.text.Word;

/** What somebody is in a project; a person may be several. */
public enum Role implements Word {
  /** Makes layers, forms and rounds, and looks after the project. */
  COORDINATOR("coordinator"),
  /** Decides what the visits write to the layers. */
  REVIEWER("reviewer"),
  /** Goes out with the day book. */
  INSPECTOR("inspector"),
  /** Sees the register, and takes it out. */
  READER("reader");

  private final String id;

  /** The roles with these ids, in the order of this list; others are left out. */
  public static Set<Role> all(Collection<String> ids) {
    Set<Role> out = EnumSet.noneOf(Role.class);
    for (Role r : values()) if (ids.contains(r.id)) out.add(r);
    return out;
  }

  Role(String id) {
    this.id = id;
  }

  @Override
  public String id() {
    return id;
  }
}
