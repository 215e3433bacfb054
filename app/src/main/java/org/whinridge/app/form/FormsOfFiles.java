package org.whinridge.app.form;

import com.github.benmanes.caffeine.cache.Cache;
import com.github.benmanes.caffeine.cache.Caffeine;
import java.nio.charset.StandardCharsets;
import java.util.Optional;
import java.util.UUID;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import org.whinridge.app.shell.Sha256;
import org.whinridge.app.shell.Writing;
import org.whinridge.core.form.Form;

/**
 * Knows forms again that were opened from files elsewhere: by what a file hashes to as core writes
 * it. A published edition may be it, or a form that was begun from it.
 */
@Service
@Transactional(readOnly = true)
public class FormsOfFiles {
  private static final int MOST_KNOWN = 10_000;
  private final FormRepository forms;
  private final Forms all;

  private record EditionKey(UUID form, int number) {}

  /** What editions hash to; they never change. */
  private final Cache<EditionKey, String> known =
      Caffeine.newBuilder().maximumSize(MOST_KNOWN).executor(Runnable::run).build();

  FormsOfFiles(FormRepository forms, Forms all) {
    this.forms = forms;
    this.all = all;
  }

  /** What a form hashes to, SHA-256 of what core writes of it. */
  static String hash(Form form) {
    return Sha256.of(form.json().toString().getBytes(StandardCharsets.UTF_8));
  }

  /** Notes of which file a form was begun. */
  @Writing
  public void begun(UUID form, Form file) {
    forms.findById(form).orElseThrow().fromFile = hash(file);
  }

  /** The edition with which visits of a file are filled in a project, when it has that form. */
  public Optional<Edition> of(UUID project, String hash) {
    for (FormEntity f : forms.findByProjectIdOrderByChangedAtDesc(project)) {
      if (f.retiredAt != null || f.layerId == null) continue;
      Optional<Edition> newest = all.newest(f.id);
      if (newest.isEmpty()) continue;
      if (hash.equals(f.fromFile)) return newest;
      for (EditionHead e : all.editions(f.id))
        if (hash.equals(hashOf(f.id, e.number()))) return all.edition(f.id, e.number());
    }
    return Optional.empty();
  }

  private String hashOf(UUID form, int number) {
    return known.get(
        new EditionKey(form, number),
        key -> all.edition(form, number).map(e -> hash(e.form())).orElse(""));
  }
}
