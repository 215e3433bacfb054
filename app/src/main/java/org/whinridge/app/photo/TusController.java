package org.whinridge.app.photo;

import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.security.Principal;
import java.time.ZoneOffset;
import java.time.format.DateTimeFormatter;
import java.util.Base64;
import java.util.Optional;
import java.util.UUID;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestMethod;
import org.springframework.web.bind.annotation.RestController;
import org.whinridge.app.shell.JobProblem;

/**
 * Resumable uploads of photos: tus 1.0.0 core, creation, expiration, termination. The metadata's
 * "photo" is the id that a visit announced.
 */
@RestController
class TusController {
  private static final String BYTES = "application/offset+octet-stream";
  private final TusStore store;
  private final Photos photos;

  TusController(TusStore store, Photos photos) {
    this.store = store;
    this.photos = photos;
  }

  @RequestMapping(
      path = {"/api/day/uploads", "/api/day/uploads/{id}"},
      method = {
        RequestMethod.POST,
        RequestMethod.PATCH,
        RequestMethod.HEAD,
        RequestMethod.DELETE,
        RequestMethod.OPTIONS
      })
  void handle(
      @PathVariable Optional<UUID> id,
      HttpServletRequest q,
      HttpServletResponse r,
      Principal person)
      throws IOException {
    r.setHeader("Tus-Resumable", "1.0.0");
    r.setHeader("Cache-Control", "no-store");
    try {
      if (q.getMethod().equals("OPTIONS")) options(r);
      else if (!"1.0.0".equals(q.getHeader("Tus-Resumable")))
        throw new TusStore.Refusal(412, "only tus 1.0.0 is spoken here");
      else if (id.isEmpty()) create(q, r, person.getName());
      else existing(store.find(id.get(), person.getName()), q, r);
    } catch (TusStore.Refusal e) {
      say(r, e.status, e.getMessage());
    } catch (JobProblem e) {
      say(r, e.status().value(), e.getMessage());
    }
  }

  private static void say(HttpServletResponse r, int status, String message) throws IOException {
    r.setStatus(status);
    r.setContentType("text/plain;charset=UTF-8");
    r.getWriter().write(message);
  }

  private void options(HttpServletResponse r) {
    r.setHeader("Tus-Version", "1.0.0");
    r.setHeader("Tus-Max-Size", String.valueOf(photos.limit()));
    r.setHeader("Tus-Extension", "creation,expiration,termination");
    r.setStatus(204);
  }

  private void create(HttpServletRequest q, HttpServletResponse r, String owner)
      throws IOException, TusStore.Refusal {
    if (!q.getMethod().equals("POST"))
      throw new TusStore.Refusal(405, "an upload is begun with POST");
    long length = number(q, "Upload-Length");
    if (length > photos.limit())
      throw new TusStore.Refusal(413, "a photo has at most " + photos.limit() + " bytes");
    Photo photo =
        photos
            .find(photoId(q.getHeader("Upload-Metadata")))
            .orElseThrow(() -> new TusStore.Refusal(404, "no visit has announced this photo"));
    if (photo.bytes() != length)
      throw new TusStore.Refusal(409, "the visit announced a photo of " + photo.bytes() + " bytes");
    TusStore.Info i = store.create(length, owner, photo.id());
    r.setHeader("Location", "/api/day/uploads/" + i.id());
    expires(i, r);
    r.setStatus(201);
  }

  private static UUID photoId(String metadata) throws TusStore.Refusal {
    for (String pair : metadata == null ? new String[0] : metadata.split(",")) {
      String[] p = pair.strip().split(" ");
      if (p.length == 2 && p[0].equals("photo"))
        try {
          return UUID.fromString(
              new String(Base64.getDecoder().decode(p[1]), StandardCharsets.UTF_8));
        } catch (IllegalArgumentException e) {
          throw new TusStore.Refusal(400, "the metadata's photo is not an id");
        }
    }
    throw new TusStore.Refusal(400, "the metadata name no photo");
  }

  private void existing(TusStore.Info i, HttpServletRequest q, HttpServletResponse r)
      throws IOException, TusStore.Refusal {
    switch (q.getMethod()) {
      case "HEAD" -> {
        r.setHeader("Upload-Offset", String.valueOf(store.offset(i.id())));
        r.setHeader("Upload-Length", String.valueOf(i.length()));
        expires(i, r);
        r.setStatus(200);
      }
      case "PATCH" -> {
        if (!BYTES.equals(q.getContentType()))
          throw new TusStore.Refusal(415, "bytes are sent as " + BYTES);
        long now = store.append(i, number(q, "Upload-Offset"), q.getInputStream());
        if (now == i.length()) complete(i);
        r.setHeader("Upload-Offset", String.valueOf(now));
        expires(i, r);
        r.setStatus(204);
      }
      case "DELETE" -> {
        store.remove(i.id());
        r.setStatus(204);
      }
      default -> throw new TusStore.Refusal(405, "not a tus method");
    }
  }

  private void complete(TusStore.Info i) throws IOException {
    try {
      photos.receive(i.photo(), store.data(i.id()));
    } finally {
      // taken or damaged: either way this upload is over, and the device begins anew if its photo
      // is not here
      Files.deleteIfExists(store.data(i.id()));
      store.remove(i.id());
    }
  }

  private static void expires(TusStore.Info i, HttpServletResponse r) {
    r.setHeader(
        "Upload-Expires",
        DateTimeFormatter.RFC_1123_DATE_TIME.format(i.expires().atZone(ZoneOffset.UTC)));
  }

  private static long number(HttpServletRequest q, String header) throws TusStore.Refusal {
    String s = q.getHeader(header);
    if (s == null || !s.matches("[0-9]{1,15}"))
      throw new TusStore.Refusal(400, header + " is missing");
    return Long.parseLong(s);
  }
}
