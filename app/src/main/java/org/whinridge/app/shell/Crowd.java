package org.whinridge.app.shell;

import jakarta.servlet.ServletException;
import java.io.IOException;
import java.util.Map;
import java.util.concurrent.ConcurrentHashMap;
import org.apache.catalina.connector.Request;
import org.apache.catalina.connector.Response;
import org.apache.catalina.valves.ValveBase;
import org.apache.coyote.ActionCode;
import org.springframework.beans.factory.annotation.Value;
import org.springframework.boot.tomcat.ConfigurableTomcatWebServerFactory;
import org.springframework.boot.web.server.WebServerFactoryCustomizer;
import org.springframework.context.annotation.Bean;
import org.springframework.context.annotation.Configuration;

/**
 * Keeps slow senders from taking the server for themselves. While a body arrives it holds a thread,
 * however slowly it comes: so one address may send only so many at once, and of what is refused
 * nothing more is read.
 */
@Configuration(proxyBeanMethods = false)
public class Crowd {
  /** An attribute of a request that was refused before its body was read. */
  private static final String UNREAD = Crowd.class.getName() + ".unread";

  private static final int TOO_MANY_REQUESTS = 429;

  /** Marks a request as refused: what it goes on to send is not waited for. */
  public static void dontRead(jakarta.servlet.http.HttpServletRequest q) {
    q.setAttribute(UNREAD, true);
  }

  @Bean
  WebServerFactoryCustomizer<ConfigurableTomcatWebServerFactory> crowdValve(
      @Value("${whinridge.senders-of-an-address}") int most) {
    return factory -> factory.addEngineValves(new Senders(most));
  }

  private static final class Senders extends ValveBase {
    private final int most;
    private final Map<String, Integer> sending = new ConcurrentHashMap<>();

    Senders(int most) {
      super(true);
      this.most = most;
    }

    private static boolean hasBody(Request q) {
      return q.getContentLengthLong() > 0 || q.getHeader("Transfer-Encoding") != null;
    }

    @Override
    public void invoke(Request q, Response r) throws IOException, ServletException {
      if (!hasBody(q)) {
        getNext().invoke(q, r);
        return;
      }
      String address = String.valueOf(q.getRemoteAddr());
      try {
        if (sending.merge(address, 1, Integer::sum) > most) {
          r.setStatus(TOO_MANY_REQUESTS);
          r.setHeader("Retry-After", "5");
          unread(q, r);
        } else {
          getNext().invoke(q, r);
          if (q.getAttribute(UNREAD) != null) unread(q, r);
        }
      } finally {
        sending.computeIfPresent(address, (a, n) -> n == 1 ? null : n - 1);
      }
    }

    private static void unread(Request q, Response r) throws IOException {
      if (!r.isCommitted()) r.setHeader("Connection", "close");
      r.finishResponse();
      q.getCoyoteRequest().action(ActionCode.DISABLE_SWALLOW_INPUT, null);
    }
  }
}
