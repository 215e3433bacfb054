package org.whinridge.core.form;

import java.util.ArrayList;
import java.util.List;
import org.whinridge.core.layer.Code;
import org.whinridge.core.text.Fold;

/**
 * Which question or code a reference picture belongs to, by the name of its file: the name or label
 * of a question ("lining.jpg"), of a code ("brick.png"), or both ("lining-brick.jpg",
 * "lining_brick.jpg"). Capitals, accents, spaces and marks do not count. A code's name that several
 * questions have belongs to none of them.
 */
public final class ReferencePictures {
  private ReferencePictures() {}

  /**
   * Where a picture goes.
   *
   * @param question the question's name
   * @param code the code of it; "" for the question itself
   */
  public record Place(String question, String code) {}

  /** The places that a file's name means; one when it is clear, none or several otherwise. */
  public static List<Place> of(Form form, String fileName) {
    int dot = fileName.lastIndexOf('.');
    String wanted = key(dot > 0 ? fileName.substring(0, dot) : fileName);
    List<Place> questions = new ArrayList<>();
    List<Place> both = new ArrayList<>();
    List<Place> codes = new ArrayList<>();
    if (wanted.isEmpty()) return questions;
    for (Question q : form.questions()) {
      boolean own = wanted.equals(key(q.name())) || wanted.equals(key(q.label()));
      if (own) questions.add(new Place(q.name(), ""));
      for (Code c : q.codes()) {
        boolean named = wanted.equals(key(c.code())) || wanted.equals(key(c.label()));
        if (named) codes.add(new Place(q.name(), c.code()));
        if (isBoth(wanted, q, c)) both.add(new Place(q.name(), c.code()));
      }
    }
    return !both.isEmpty() ? both : !questions.isEmpty() ? questions : codes;
  }

  private static boolean isBoth(String wanted, Question q, Code c) {
    for (String first : new String[] {key(q.name()), key(q.label())})
      for (String then : new String[] {key(c.code()), key(c.label())})
        if (!then.isEmpty() && wanted.equals(first + then)) return true;
    return false;
  }

  private static String key(String s) {
    StringBuilder b = new StringBuilder();
    String folded = Fold.lower(Fold.accents(s));
    for (int i = 0; i < folded.length(); i++)
      if (Character.isLetterOrDigit(folded.charAt(i))) b.append(folded.charAt(i));
    return b.toString();
  }
}
