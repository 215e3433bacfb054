package org.whinridge.app.photo;

import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import java.io.IOException;
import java.nio.file.Path;
import java.security.Principal;
import java.util.Map;
import java.util.Optional;
import java.util.UUID;
import org.springframework.boot.context.event.ApplicationReadyEvent;
import org.springframework.context.event.EventListener;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.RestController;
import org.whinridge.app.shell.OpenTo;
import org.whinridge.app.shell.TusRefusal;
import org.whinridge.app.shell.TusRequests;
import org.whinridge.app.shell.TusUploads;
import org.whinridge.core.said.Said;

/** Resumable uploads of photos; the metadata's "photo" is the id that a visit announced. */
@RestController
class TusController {
  private static final String HOME = "/api/day/uploads";
  private final TusUploads uploads;
  private final Photos photos;

  TusController(TusUploads uploads, Photos photos) {
    this.uploads = uploads;
    this.photos = photos;
  }

  /** Also of those who go out nowhere any more: each photo is one that a visit of theirs awaits. */
  @OpenTo(OpenTo.Whom.SIGNED_IN)
  @TusRequests({HOME, HOME + "/{id}"})
  void handle(
      @PathVariable Optional<UUID> id,
      HttpServletRequest q,
      HttpServletResponse r,
      Principal person)
      throws IOException {
    uploads.handle(id, HOME, q, r, person.getName(), new OfAPhoto());
  }

  private final class OfAPhoto implements TusUploads.Target {
    @Override
    public long limit() {
      return photos.limit();
    }

    @Override
    public String begin(Map<String, String> metadata, long length, String owner, long open)
        throws TusRefusal {
      if (!metadata.containsKey("photo"))
        throw new TusRefusal(400, Said.of("refused.metadataNameNoPhoto"));
      UUID id;
      try {
        id = UUID.fromString(metadata.get("photo"));
      } catch (IllegalArgumentException e) {
        throw new TusRefusal(400, Said.of("refused.metadatasPhotoNotId"));
      }
      Photo photo =
          photos
              .awaited(id, new Photos.Sender(owner, metadata.getOrDefault("device", "")))
              .orElseThrow(() -> new TusRefusal(404, Said.of("refused.noVisitFromDevice")));
      if (photo.received()) throw new TusRefusal(409, Said.of("refused.officePhotoAlready"));
      if (photo.bytes() != length)
        throw new TusRefusal(
            409, Said.of("refused.visitAnnouncedPhotoBytes", "bytes", photo.bytes()));
      photos.bounded(owner, open);
      return id.toString();
    }

    @Override
    public void complete(UUID upload, String about, Path file) throws IOException {
      photos.receive(UUID.fromString(about), file);
    }
  }

  /** Photos that had arrived whole when the server stopped are taken now. */
  @EventListener(ApplicationReadyEvent.class)
  void completeAll() throws IOException {
    uploads.completeAll(HOME, new OfAPhoto());
  }
}
