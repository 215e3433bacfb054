package org.whinridge.app.people;

import jakarta.servlet.FilterChain;
import jakarta.servlet.ServletException;
import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import java.io.IOException;
import java.time.Duration;
import org.springframework.web.filter.OncePerRequestFilter;

/** Lets a try to sign in through when its account and its address need not wait. */
class SignInGuard extends OncePerRequestFilter {
  private final SignInWaits waits;

  SignInGuard(SignInWaits waits) {
    this.waits = waits;
  }

  @Override
  protected boolean shouldNotFilter(HttpServletRequest q) {
    return !q.getMethod().equals("POST") || !q.getRequestURI().equals("/sign-in");
  }

  @Override
  protected void doFilterInternal(HttpServletRequest q, HttpServletResponse r, FilterChain chain)
      throws ServletException, IOException {
    Duration wait = waits.ask(String.valueOf(q.getParameter("username")), q.getRemoteAddr());
    if (wait.isZero()) chain.doFilter(q, r);
    else r.sendRedirect("/sign-in?wait=" + Math.max(1, wait.plusMillis(999).toSeconds()));
  }
}
