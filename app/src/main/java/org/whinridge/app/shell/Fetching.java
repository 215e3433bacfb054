package org.whinridge.app.shell;

import java.io.IOException;
import java.io.InputStream;
import java.io.OutputStream;
import java.io.UncheckedIOException;
import java.net.Inet4Address;
import java.net.Inet6Address;
import java.net.InetAddress;
import java.net.URI;
import java.net.UnknownHostException;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Duration;
import java.util.Optional;
import java.util.concurrent.CompletableFuture;
import java.util.concurrent.Executor;
import java.util.concurrent.TimeUnit;
import java.util.function.Predicate;
import org.springframework.stereotype.Component;

/**
 * Fetches a file from an address that a person typed. The server stands inside a network to which
 * that person may have no way, so it asks only what everybody can ask: no address of its own
 * machine or of a private network, however it is written and wherever it is led on to.
 *
 * <p>A name is looked up and judged right before it is asked; the answer of the look-up is kept by
 * the runtime for some seconds, so that the request goes to the address that was judged.
 */
@Component
public class Fetching {
  private static final int MOST_LED_ON = 3;
  private static final Duration PATIENCE = Duration.ofSeconds(20);
  private static final Executor LATER =
      CompletableFuture.delayedExecutor(PATIENCE.toSeconds(), TimeUnit.SECONDS);
  private static final int CHUNK = 1 << 16;
  private static final int FIRST_REDIRECT = 300;
  private static final int FIRST_FAULT = 400;

  private final Predicate<InetAddress> allowed;
  private final HttpClient http =
      HttpClient.newBuilder()
          .connectTimeout(PATIENCE)
          .followRedirects(HttpClient.Redirect.NEVER)
          .build();

  @org.springframework.beans.factory.annotation.Autowired
  Fetching() {
    this(Fetching::isPublic);
  }

  Fetching(Predicate<InetAddress> allowed) {
    this.allowed = allowed;
  }

  /**
   * Fetches a file.
   *
   * @param most bytes; more is refused while it comes
   * @throws Refusal in words, when the address can't be asked, does not answer or answers with
   *     something else
   */
  public void fetch(String address, Path to, long most) throws IOException {
    URI at = uri(address);
    for (int led = 0; led <= MOST_LED_ON; led++) {
      guard(at);
      HttpResponse<InputStream> answer = ask(at);
      // the patience of the request ends with its head; a body that stands still is shut
      CompletableFuture<Void> alarm = CompletableFuture.runAsync(() -> shut(answer.body()), LATER);
      try (InputStream in = answer.body()) {
        int status = answer.statusCode();
        if (status >= FIRST_REDIRECT && status < FIRST_FAULT) {
          Optional<String> next = answer.headers().firstValue("location");
          if (next.isEmpty()) throw Refusal.refused("refused.addressAnswers", "status", status);
          at = uri(at.resolve(uriOf(next.get())).toString());
          continue;
        }
        if (status != 200) throw Refusal.refused("refused.addressAnswers", "status", status);
        copy(in, to, most);
        return;
      } finally {
        alarm.cancel(false);
      }
    }
    throw Refusal.refused("refused.addressLeadsOn");
  }

  private static URI uriOf(String s) {
    try {
      return URI.create(s);
    } catch (IllegalArgumentException e) {
      throw Refusal.refused("refused.noAddress");
    }
  }

  private static URI uri(String s) {
    URI u = uriOf(s);
    boolean web = "https".equalsIgnoreCase(u.getScheme()) || "http".equalsIgnoreCase(u.getScheme());
    if (!web || u.getHost() == null || u.getUserInfo() != null)
      throw Refusal.refused("refused.noAddress");
    return u;
  }

  private void guard(URI at) {
    try {
      String host = at.getHost();
      for (InetAddress a : InetAddress.getAllByName(host))
        if (!allowed.test(a)) throw Refusal.refused("refused.addressInside", "host", host);
    } catch (UnknownHostException e) {
      throw Refusal.refused("refused.addressUnknown", "host", at.getHost());
    }
  }

  private HttpResponse<InputStream> ask(URI at) {
    HttpRequest q = HttpRequest.newBuilder(at).timeout(PATIENCE).GET().build();
    try {
      return http.send(q, HttpResponse.BodyHandlers.ofInputStream());
    } catch (IOException e) {
      throw Refusal.refused("refused.addressSilent", "host", at.getHost());
    } catch (InterruptedException e) {
      Thread.currentThread().interrupt();
      throw Refusal.refused("refused.addressSilent", "host", at.getHost());
    }
  }

  private static void shut(InputStream body) {
    try {
      body.close();
    } catch (IOException e) {
      throw new UncheckedIOException(e); // whoever reads it is told so by the stream itself
    }
  }

  private static void copy(InputStream in, Path to, long most) throws IOException {
    try (OutputStream out = Files.newOutputStream(to)) {
      byte[] chunk = new byte[CHUNK];
      long all = 0;
      for (int n = read(in, chunk); n >= 0; n = read(in, chunk)) {
        all += n;
        if (all > most) throw Refusal.tooLarge("refused.addressTooLarge", "mb", most / 1_000_000);
        out.write(chunk, 0, n);
      }
    }
  }

  /** What comes next; a body that breaks off or was shut is told in words. */
  private static int read(InputStream in, byte[] chunk) {
    try {
      return in.read(chunk);
    } catch (IOException e) {
      throw Refusal.refused("refused.addressSlow");
    }
  }

  /**
   * Whether everybody can ask an address: it is global unicast. Source: the IANA registries of
   * special-purpose addresses for IPv4 and IPv6 (RFC 6890); from memory.
   */
  static boolean isPublic(InetAddress a) {
    if (a.isAnyLocalAddress()
        || a.isLoopbackAddress()
        || a.isLinkLocalAddress()
        || a.isSiteLocalAddress()
        || a.isMulticastAddress()) return false;
    byte[] b = a.getAddress();
    return a instanceof Inet4Address ? isPublic4(b, 0) : isPublic6((Inet6Address) a, b);
  }

  private static boolean isPublic4(byte[] b, int at) {
    int first = b[at] & 255;
    int second = b[at + 1] & 255;
    int third = b[at + 2] & 255;
    if (first == 0 || first == 10 || first == 127 || first >= 224) return false;
    if (first == 100 && second >= 64 && second < 128) return false; // shared by carriers
    if (first == 169 && second == 254) return false;
    if (first == 172 && second >= 16 && second < 32) return false;
    if (first == 192 && second == 168) return false;
    if (first == 192 && second == 0 && (third == 0 || third == 2)) return false;
    if (first == 198 && (second == 18 || second == 19 || second == 51 && third == 100))
      return false;
    return !(first == 203 && second == 0 && third == 113);
  }

  private static boolean isPublic6(Inet6Address a, byte[] b) {
    if (a.isIPv4CompatibleAddress()) return false;
    int first = (b[0] & 255) << 8 | b[1] & 255;
    int second = (b[2] & 255) << 8 | b[3] & 255;
    if (first == 0x2002) return isPublic4(b, 2); // 6to4 carries an IPv4 address
    if (first == 0x64 && second == 0xFF9B) return isPublic4(b, 12); // and so does NAT64
    if (first == 0x2001 && (second < 0x200 || second == 0xDB8)) return false;
    return (first & 0xE000) == 0x2000; // what else there is of global unicast
  }
}
