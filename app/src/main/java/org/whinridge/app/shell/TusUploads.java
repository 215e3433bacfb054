package org.whinridge.app.shell;

import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.time.ZoneOffset;
import java.time.format.DateTimeFormatter;
import java.util.Base64;
import java.util.LinkedHashMap;
import java.util.Map;
import java.util.Optional;
import java.util.UUID;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.stereotype.Component;
import org.whinridge.core.said.Said;

/**
 * Resumable uploads: tus 1.0.0 core, creation, expiration, termination. What an upload is for, and
 * what becomes of it when it is complete, a {@link Target} decides.
 */
@Component
public class TusUploads {
  private static final String BYTES = "application/offset+octet-stream";
  private static final Logger LOG = LoggerFactory.getLogger(TusUploads.class);
  private final TusStore store;
  private final Catalogue catalogue;

  TusUploads(TusStore store, Catalogue catalogue) {
    this.store = store;
    this.catalogue = catalogue;
  }

  /** What uploads at one address are for. */
  public interface Target {
    /** The largest upload, in bytes. */
    long limit();

    /**
     * What this upload is about, in one line of text that {@link #complete} is given again.
     *
     * @param owner who sends it
     * @param open the bytes, as announced, of this owner's other uploads here that are begun and
     *     not over
     * @throws TusRefusal when it is not wanted
     */
    String begin(Map<String, String> metadata, long length, String owner, long open)
        throws TusRefusal;

    /**
     * Takes the bytes of a complete upload: copies or links them, since the file is removed after.
     * The same upload may come again when the server was killed in between; once is enough then.
     *
     * @throws Refusal when the bytes are not what they should be; the upload is over then. After
     *     any other failure it can be completed later.
     */
    void complete(UUID upload, String about, Path file) throws IOException;
  }

  /** Completes what had all its bytes when the server stopped. */
  public void completeAll(String home, Target target) throws IOException {
    for (TusStore.Info i : store.all())
      if (i.about().startsWith(home + "|") && store.isWhole(i))
        try {
          complete(i, i.about().substring(home.length() + 1), target);
          LOG.info("upload {} was whole when the server stopped and is taken now", i.id());
        } catch (TusRefusal | Refusal e) {
          LOG.warn("upload {} was whole when the server stopped: {}", i.id(), e.getMessage());
        }
  }

  /** Answers one request; {@code home} is the address below which uploads are. */
  public void handle(
      Optional<UUID> id,
      String home,
      HttpServletRequest q,
      HttpServletResponse r,
      String owner,
      Target target)
      throws IOException {
    r.setHeader("Tus-Resumable", "1.0.0");
    r.setHeader("Cache-Control", "no-store");
    try {
      if (q.getMethod().equals("OPTIONS")) options(r, target);
      else if (!"1.0.0".equals(q.getHeader("Tus-Resumable")))
        throw new TusRefusal(412, Said.of("refused.onlyTusSpokenHere"));
      else if (id.isEmpty()) create(home, q, r, owner, target);
      else existing(store.find(id.get(), owner), q, r, home, target);
    } catch (TusRefusal e) {
      say(r, e.status, e.said);
    } catch (Refusal e) {
      say(r, e.status().value(), e.said());
    }
  }

  private void say(HttpServletResponse r, int status, Said said) throws IOException {
    r.setStatus(status);
    r.setContentType("text/plain;charset=UTF-8");
    r.getWriter().write(catalogue.say(said));
  }

  private static void options(HttpServletResponse r, Target target) {
    r.setHeader("Tus-Version", "1.0.0");
    r.setHeader("Tus-Max-Size", String.valueOf(target.limit()));
    r.setHeader("Tus-Extension", "creation,expiration,termination");
    r.setStatus(204);
  }

  private void create(
      String home, HttpServletRequest q, HttpServletResponse r, String owner, Target target)
      throws IOException, TusRefusal {
    if (!q.getMethod().equals("POST"))
      throw new TusRefusal(405, Said.of("refused.uploadBegunPost"));
    long length = number(q, "Upload-Length");
    if (length > target.limit())
      throw new TusRefusal(413, Said.of("refused.uploadHereAtMost", "limit", target.limit()));
    String about =
        target
            .begin(metadata(q.getHeader("Upload-Metadata")), length, owner, store.open(owner, home))
            .replace("\n", " ");
    TusStore.Info i = store.create(length, owner, home + "|" + about);
    if (length == 0) complete(i, about, target);
    r.setHeader("Location", home + "/" + i.id());
    expires(i, r);
    r.setStatus(201);
  }

  private static Map<String, String> metadata(String header) throws TusRefusal {
    Map<String, String> out = new LinkedHashMap<>();
    for (String pair : header == null ? new String[0] : header.split(",")) {
      String[] p = pair.strip().split(" ");
      try {
        if (p.length == 2)
          out.put(p[0], new String(Base64.getDecoder().decode(p[1]), StandardCharsets.UTF_8));
      } catch (IllegalArgumentException e) {
        throw new TusRefusal(400, Said.of("refused.metadataNotFormTus"));
      }
    }
    return out;
  }

  private void existing(
      TusStore.Info i, HttpServletRequest q, HttpServletResponse r, String home, Target target)
      throws IOException, TusRefusal {
    if (!i.about().startsWith(home + "|"))
      throw new TusRefusal(404, Said.of("refused.uploadNotHere"));
    switch (q.getMethod()) {
      case "HEAD" -> {
        long at = store.offset(i.id());
        // the server may have been killed between the last byte and taking the whole
        if (at == i.length()) complete(i, i.about().substring(home.length() + 1), target);
        r.setHeader("Upload-Offset", String.valueOf(at));
        r.setHeader("Upload-Length", String.valueOf(i.length()));
        expires(i, r);
        r.setStatus(200);
      }
      case "PATCH" -> {
        if (!BYTES.equals(q.getContentType()))
          throw new TusRefusal(415, Said.of("refused.bytesSentAs", "bytes", BYTES));
        long now = store.append(i, number(q, "Upload-Offset"), q.getInputStream());
        if (now == i.length()) complete(i, i.about().substring(home.length() + 1), target);
        r.setHeader("Upload-Offset", String.valueOf(now));
        expires(i, r);
        r.setStatus(204);
      }
      case "DELETE" -> {
        store.remove(i.id());
        r.setStatus(204);
      }
      default -> throw new TusRefusal(405, Said.of("refused.notTusMethod"));
    }
  }

  private void complete(TusStore.Info i, String about, Target target)
      throws IOException, TusRefusal {
    store.end(i, () -> target.complete(i.id(), about, store.data(i.id())));
  }

  private static void expires(TusStore.Info i, HttpServletResponse r) {
    r.setHeader(
        "Upload-Expires",
        DateTimeFormatter.RFC_1123_DATE_TIME.format(i.expires().atZone(ZoneOffset.UTC)));
  }

  private static long number(HttpServletRequest q, String header) throws TusRefusal {
    String s = q.getHeader(header);
    if (s == null || !s.matches("[0-9]{1,15}"))
      throw new TusRefusal(400, Said.of("refused.missing", "header", header));
    return Long.parseLong(s);
  }
}
