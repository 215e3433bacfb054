package org.whinridge.app.shell;

import java.util.Arrays;
import java.util.Optional;
import org.springframework.http.MediaType;
import org.springframework.http.ResponseEntity;
import org.springframework.stereotype.Controller;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;

/** Gives the catalogue to the browser. An address has one content for ever. */
@Controller
class CatalogueController {
  private final Catalogue catalogue;

  CatalogueController(Catalogue catalogue) {
    this.catalogue = catalogue;
  }

  @OpenTo(OpenTo.Whom.EVERYBODY)
  @GetMapping("/messages/{part}/{language}/{hash}.json")
  ResponseEntity<byte[]> texts(
      @PathVariable String part, @PathVariable String language, @PathVariable String hash) {
    Optional<byte[]> texts =
        Arrays.stream(Catalogue.Part.values())
            .filter(p -> p.id().equals(part) && catalogue.hash(p, language).equals(hash))
            .findFirst()
            .flatMap(p -> catalogue.texts(p, language));
    return texts
        .map(
            b ->
                ResponseEntity.ok()
                    .contentType(MediaType.APPLICATION_JSON)
                    .header("Cache-Control", "public, max-age=31536000, immutable")
                    .body(b))
        .orElseThrow(() -> Refusal.notFound("thing.listOfTexts"));
  }
}
