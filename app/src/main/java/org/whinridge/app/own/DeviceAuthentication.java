package org.whinridge.app.own;

import java.security.Principal;
import java.util.List;
import java.util.UUID;
import org.springframework.security.authentication.AbstractAuthenticationToken;

/** A person on a device of theirs. */
public final class DeviceAuthentication extends AbstractAuthenticationToken {
  private static final long serialVersionUID = 1;
  private final String person;
  private final UUID device;

  DeviceAuthentication(String person, UUID device) {
    super(List.of());
    this.person = person;
    this.device = device;
    setAuthenticated(true);
  }

  /** The device on which somebody asks; null when they ask in another way. */
  public static UUID of(Principal who) {
    return who instanceof DeviceAuthentication d ? d.device : null;
  }

  @Override
  public Object getCredentials() {
    return "";
  }

  @Override
  public Object getPrincipal() {
    return person;
  }
}
