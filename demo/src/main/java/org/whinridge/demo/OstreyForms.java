package org.whinridge.demo;

import java.io.IOException;
import java.io.InputStream;
import java.io.UncheckedIOException;
import java.nio.charset.StandardCharsets;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Set;
import java.util.function.UnaryOperator;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.whinridge.core.form.Form;

/**
 * The board's three forms, shipped as form files. Where a file has the id of a layer or of a
 * reference picture, these have "layer:" or "picture:" and its name.
 */
public final class OstreyForms {
  /**
   * One of them.
   *
   * @param file the name of its file
   * @param layer the layer that it is on
   */
  public record Shipped(String file, String layer) {}

  /** The form that the round is for. */
  public static final Shipped STRUCTURES = new Shipped("structure-visit", "Control structures");

  /** All three. */
  public static final List<Shipped> ALL =
      List.of(
          new Shipped("washland-visit", "Washlands"),
          new Shipped("bank-walk", "Banks and drains"),
          STRUCTURES);

  private static final Pattern PICTURE = Pattern.compile("\"picture:([a-z_0-9-]+)\"");
  private static final Pattern LAYER = Pattern.compile("\"layer:([A-Za-z ]+)\"");

  private OstreyForms() {}

  private static String text(Shipped form) {
    try (InputStream in = OstreyForms.class.getResourceAsStream(form.file + ".form.json")) {
      return new String(in.readAllBytes(), StandardCharsets.UTF_8);
    } catch (IOException e) {
      throw new UncheckedIOException(e); // it is in the same archive
    }
  }

  private static String put(String text, Pattern what, UnaryOperator<String> id) {
    return what.matcher(text)
        .replaceAll(m -> Matcher.quoteReplacement('"' + id.apply(m.group(1)) + '"'));
  }

  /**
   * A form.
   *
   * @param layer the id of a layer by its name
   * @param picture the id of a reference picture by its name, see {@link OstreyDrawings}
   */
  public static Form form(
      Shipped form, UnaryOperator<String> layer, UnaryOperator<String> picture) {
    return Form.read(put(put(text(form), LAYER, layer), PICTURE, picture));
  }

  /** The names of the reference pictures of a form. */
  public static Set<String> pictures(Shipped form) {
    Set<String> out = new LinkedHashSet<>();
    Matcher m = PICTURE.matcher(text(form));
    while (m.find()) out.add(m.group(1));
    return out;
  }
}
