package org.whinridge.app.shell;

import jakarta.servlet.FilterChain;
import jakarta.servlet.ServletException;
import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import java.io.IOException;
import org.springframework.http.MediaType;
import org.springframework.stereotype.Component;
import org.springframework.web.filter.OncePerRequestFilter;
import org.whinridge.core.said.Said;

/**
 * No page sends more in one body than what its address is for. What may be longer, uploads and
 * hand-ins, counts its bytes itself.
 */
@Component
class BodyLimit extends OncePerRequestFilter {
  /** A form of 8,000,000 characters, each of up to four bytes, and some more. */
  private static final long FORM = 33_000_000;

  /** Five hundred features with their shapes. */
  private static final long FEATURES = 20_000_000;

  /** What people choose and type, code lists of a whole register among it. */
  private static final long ELSE = 2_000_000;

  /** The most bytes of a body sent there. */
  static long most(String path) {
    if (path.matches("/api/p/[^/]+/forms/.*")) return FORM;
    if (path.matches("/api/p/[^/]+/layers/[^/]+/(acts|edits|features)(/.*)?")) return FEATURES;
    return ELSE;
  }

  private final ToldAsJson told;

  BodyLimit(ToldAsJson told) {
    this.told = told;
  }

  @Override
  protected boolean shouldNotFilter(HttpServletRequest q) {
    return !(q.getRequestURI().startsWith("/api/p/")
            || q.getRequestURI().startsWith("/api/own/")
            || q.getRequestURI().equals("/api/day/pair")
            || q.getRequestURI().equals("/api/day/contact"))
        || q.getContentType() == null
        || !q.getContentType().startsWith(MediaType.APPLICATION_JSON_VALUE);
  }

  @Override
  protected void doFilterInternal(HttpServletRequest q, HttpServletResponse r, FilterChain next)
      throws ServletException, IOException {
    long length = q.getContentLengthLong();
    if (length >= 0 && length <= most(q.getRequestURI())) {
      next.doFilter(q, r);
      return;
    }
    told.send(
        q,
        r,
        length < 0 ? 411 : 413,
        Said.of(length < 0 ? "refused.noLength" : "refused.moreThanTaken"));
    Crowd.dontRead(q);
  }
}
