package org.whinridge.app.shell;

import jakarta.servlet.FilterChain;
import jakarta.servlet.ServletException;
import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import java.io.IOException;
import org.springframework.http.MediaType;
import org.springframework.stereotype.Component;
import org.springframework.web.filter.OncePerRequestFilter;

/**
 * No page sends more than a form file in one body. What may be longer, uploads and hand-ins, counts
 * its bytes itself.
 */
@Component
class BodyLimit extends OncePerRequestFilter {
  /** A form of 8,000,000 characters, each of up to four bytes, and some more. */
  private static final long MOST = 33_000_000;

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
    r.setStatus(length < 0 ? 411 : 413);
    r.setContentType("application/json;charset=UTF-8");
    r.getWriter()
        .write(
            length < 0
                ? "{\"message\":\"This request does not say how long it is. Nothing was changed.\"}"
                : "{\"message\":\"This is more than is taken at once. Nothing was changed.\"}");
  }
}
