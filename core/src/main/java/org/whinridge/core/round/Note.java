package org.whinridge.core.round;

import java.util.Arrays;
import java.util.LinkedHashSet;
import java.util.List;
import org.whinridge.core.text.Blanks;

/**
 * What to know on a round or at one of its stops: a text and pictures.
 *
 * @param text without blanks around it; "" for none
 * @param pictures ids of files that travel with the round, each once, in the order in which they
 *     are shown
 */
public record Note(String text, List<String> pictures) {
  /** Nothing to know. */
  public static final Note NONE = new Note("", List.of());

  /** The longest text, characters. */
  public static final int LONGEST = 1000;

  /** The most pictures of one note: all of them go out to every device. */
  public static final int MOST_PICTURES = 6;

  public Note {
    text = Blanks.strip(text);
    pictures = List.copyOf(new LinkedHashSet<>(pictures));
  }

  /** A note of words alone. */
  public static Note of(String text) {
    return new Note(text, List.of());
  }

  /** A note as it is kept, its pictures in the form of {@link #pictureList}. */
  public static Note read(String text, String pictures) {
    return new Note(text, Arrays.stream(pictures.split(" ")).filter(s -> !s.isEmpty()).toList());
  }

  /** The ids of its pictures with a space between them, as they are kept. */
  public String pictureList() {
    return String.join(" ", pictures);
  }

  /** Whether there is nothing to know. */
  public boolean isEmpty() {
    return text.isEmpty() && pictures.isEmpty();
  }
}
