package org.whinridge.app.own;

import jakarta.servlet.FilterChain;
import jakarta.servlet.ServletException;
import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import java.io.IOException;
import java.util.Optional;
import org.springframework.http.HttpHeaders;
import org.springframework.security.core.context.SecurityContext;
import org.springframework.security.core.context.SecurityContextHolder;
import org.springframework.web.filter.OncePerRequestFilter;
import org.whinridge.app.shell.Crowd;
import org.whinridge.app.shell.ToldAsJson;
import org.whinridge.core.said.Said;

/** Knows devices by the token that each request of theirs carries. */
class DeviceFilter extends OncePerRequestFilter {
  /** A header of the answer by which a revoked device knows that it is one. */
  static final String STATE = "Device-State";

  private static final String BEARER = "Bearer ";
  private final Devices devices;
  private final ToldAsJson told;

  DeviceFilter(Devices devices, ToldAsJson told) {
    this.devices = devices;
    this.told = told;
  }

  @Override
  protected void doFilterInternal(HttpServletRequest q, HttpServletResponse r, FilterChain next)
      throws ServletException, IOException {
    String header = q.getHeader(HttpHeaders.AUTHORIZATION);
    Optional<Devices.Known> known =
        header == null || !header.startsWith(BEARER)
            ? Optional.empty()
            : devices.byToken(header.substring(BEARER.length()));
    if (known.isPresent() && known.get().revoked()) {
      devices.toldToWipe(known.get().id());
      r.setHeader(STATE, "revoked");
      Crowd.dontRead(q);
      told.send(q, r, 401, Said.of("refused.deviceRevoked"));
      return;
    }
    if (known.isPresent()) {
      SecurityContext c = SecurityContextHolder.createEmptyContext();
      c.setAuthentication(new DeviceAuthentication(known.get().account(), known.get().id()));
      SecurityContextHolder.setContext(c);
    }
    next.doFilter(q, r);
  }
}
