package org.whinridge.app.shell;

import jakarta.servlet.FilterChain;
import jakarta.servlet.ServletException;
import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import java.io.IOException;
import java.util.HexFormat;
import java.util.concurrent.ThreadLocalRandom;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.slf4j.MDC;
import org.springframework.core.Ordered;
import org.springframework.core.annotation.Order;
import org.springframework.stereotype.Component;
import org.springframework.web.filter.OncePerRequestFilter;

/**
 * Each request has an id: it stands in what is logged meanwhile, in a header of the answer, and on
 * pages that tell a problem. What changes something, and what failed, is logged with its path;
 * never with what stands behind a question mark, which can be a key.
 */
@Component
@Order(Ordered.HIGHEST_PRECEDENCE)
class RequestIds extends OncePerRequestFilter {
  /** Under this name pages find it. */
  static final String ID = "requestId";

  private static final Logger LOG = LoggerFactory.getLogger(RequestIds.class);
  private static final int FAILED = 400;
  private static final String HEADER = "Request-Id";

  @Override
  protected void doFilterInternal(HttpServletRequest q, HttpServletResponse r, FilterChain next)
      throws ServletException, IOException {
    String id = HexFormat.of().toHexDigits(ThreadLocalRandom.current().nextInt());
    long began = System.nanoTime();
    q.setAttribute(ID, id);
    r.setHeader(HEADER, id);
    MDC.put(ID, id);
    try {
      next.doFilter(q, r);
    } finally {
      if (!q.getMethod().equals("GET") || r.getStatus() >= FAILED) {
        LOG.info(
            "{} {} {} in {} ms",
            q.getMethod(),
            q.getRequestURI(),
            r.getStatus(),
            (System.nanoTime() - began) / 1_000_000);
      }
      MDC.remove(ID);
    }
  }
}
