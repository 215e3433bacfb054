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
 * No page sends more than a form file in one body. What may be longer, uploads and hand-ins, counts
 * its bytes itself.
 */
@Component
class BodyLimit extends OncePerRequestFilter {
  /** A form of 8,000,000 characters, each of up to four bytes, and some more. */
  private static final long MOST = 33_000_000;

  private final ToldAsJson told;

  BodyLimit(ToldAsJson told) {
    this.told = told;
  }

  @Override
  protected boolean shouldNotFilter(HttpServletRequest q) {
    return !(q.getRequestURI().startsWith("/api/p/")
            || q.getRequestURI().equals("/api/day/contact"))
        || q.getContentType() == null
        || !q.getContentType().startsWith(MediaType.APPLICATION_JSON_VALUE);
  }

  @Override
  protected void doFilterInternal(HttpServletRequest q, HttpServletResponse r, FilterChain next)
      throws ServletException, IOException {
    long length = q.getContentLengthLong();
    if (length >= 0 && length <= MOST) {
      next.doFilter(q, r);
      return;
    }
    told.send(
        q,
        r,
        length < 0 ? 411 : 413,
        Said.of(length < 0 ? "refused.noLength" : "refused.moreThanTaken"));
  }
}
