package org.whinridge.app.people;

import jakarta.servlet.FilterChain;
import jakarta.servlet.ServletException;
import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import java.io.IOException;
import java.util.Set;
import org.springframework.security.authentication.InsufficientAuthenticationException;
import org.springframework.security.core.Authentication;
import org.springframework.security.core.context.SecurityContextHolder;
import org.springframework.security.web.AuthenticationEntryPoint;
import org.springframework.web.filter.OncePerRequestFilter;
import org.whinridge.app.shell.Crowd;

/**
 * Who sends something is asked to sign in before a byte of it is read: the look for the token
 * against other sites would read a form, which can be hundreds of megabytes.
 */
class AskFirst extends OncePerRequestFilter {
  /** Where people send something who are not signed in, all of it short. */
  static final Set<String> OPEN =
      Set.of(
          "/sign-in", "/first", "/join", "/forgotten", "/new-password", "/api/password-strength");

  /** The most bytes that are taken from somebody who is not signed in. */
  private static final long MOST = 20_000;

  private final AuthenticationEntryPoint ask;

  AskFirst(AuthenticationEntryPoint ask) {
    this.ask = ask;
  }

  private static boolean sends(HttpServletRequest q) {
    return q.getContentLengthLong() > 0 || q.getHeader("Transfer-Encoding") != null;
  }

  private static boolean known() {
    Authentication who = SecurityContextHolder.getContext().getAuthentication();
    return who != null && who.isAuthenticated();
  }

  @Override
  protected void doFilterInternal(HttpServletRequest q, HttpServletResponse r, FilterChain next)
      throws ServletException, IOException {
    boolean open =
        OPEN.contains(q.getRequestURI())
            && q.getContentLengthLong() >= 0
            && q.getContentLengthLong() <= MOST;
    if (!sends(q) || open || known()) next.doFilter(q, r);
    else {
      Crowd.dontRead(q);
      ask.commence(q, r, new InsufficientAuthenticationException("not signed in"));
    }
  }
}
