package org.whinridge.formats.look;

import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.Base64;
import java.util.List;
import java.util.function.Function;
import org.whinridge.core.layer.FieldType;
import org.whinridge.core.layer.LayerScope;
import org.whinridge.core.layer.Schema;
import org.whinridge.core.look.Drawing;
import org.whinridge.core.look.Look;
import org.whinridge.core.look.LookClass;
import org.whinridge.core.look.ReadyLook;
import org.whinridge.core.look.Size;
import org.whinridge.core.look.Symbol;
import org.whinridge.core.place.GeometryKind;
import org.whinridge.core.rules.Rules;
import org.whinridge.core.said.Said;
import org.whinridge.core.text.Numbers;

/**
 * Writes a look as a Styled Layer Descriptor 1.1 (OGC 05-078r4) with Symbology Encoding 1.1 (OGC
 * 05-077r4). Icons go in as SVG, inline. What the standard can't say is told, by entry, and stands
 * in the file as a comment.
 */
public final class SldWriter {
  private static final String PIXEL = "http://www.opengeospatial.org/se/units/pixel";
  private final Look look;
  private final Schema schema;
  private final ReadyLook ready;
  private final Xml x = new Xml();
  private final List<Said> notes = new ArrayList<>();
  private final Function<Said, String> words;

  /**
   * The file and what could not be said in it.
   *
   * @param notes in words for people; empty when all was said
   */
  public record Sld(String xml, List<Said> notes) {}

  private SldWriter(ReadyLook ready, Function<Said, String> words) {
    this.words = words;
    this.ready = ready;
    this.look = ready.look();
    this.schema = ready.schema();
  }

  /**
   * Writes a look of a layer of that name.
   *
   * @param words gives the words for what the standard can't say, which stand as comments in it
   */
  public static Sld write(ReadyLook ready, String layerName, Function<Said, String> words) {
    SldWriter w = new SldWriter(ready, words);
    w.x.in(
        "sld:StyledLayerDescriptor",
        () ->
            w.x.in(
                "sld:NamedLayer",
                () -> {
                  w.x.text("se:Name", layerName);
                  w.x.in("sld:UserStyle", () -> w.x.in("se:FeatureTypeStyle", w::rules));
                }),
        "version",
        "1.1.0",
        "xmlns:sld",
        "http://www.opengis.net/sld",
        "xmlns:se",
        "http://www.opengis.net/se",
        "xmlns:ogc",
        "http://www.opengis.net/ogc",
        "xmlns:xlink",
        "http://www.w3.org/1999/xlink");
    return new Sld(w.x.toString(), List.copyOf(w.notes));
  }

  private void rules() {
    List<String> earlier = new ArrayList<>();
    List<LookClass> entries = ready.entries();
    for (int i = 0; i < ready.other(); i++) {
      String filter;
      try {
        filter = condition(i, entries.get(i));
      } catch (OgcFilter.CannotSay e) {
        note(Said.of("file.leftOut", "label", entries.get(i).label(), "why", e.said()));
        continue;
      }
      boolean first = look.by() == Look.By.RULE && !look.all() && !earlier.isEmpty();
      rule(entries.get(i), first ? OgcFilter.in("And", filter + none(earlier)) : filter);
      earlier.add(filter);
    }
    rule(entries.get(ready.other()), earlier.isEmpty() ? "" : none(earlier));
    label();
  }

  private void note(Said s) {
    notes.add(s);
    x.comment(words.apply(s));
  }

  private static String none(List<String> filters) {
    String any = String.join("", filters);
    return OgcFilter.in("Not", filters.size() == 1 ? any : OgcFilter.in("Or", any));
  }

  private String condition(int i, LookClass c) throws OgcFilter.CannotSay {
    String property = OgcFilter.property(look.field());
    switch (look.by()) {
      case CODE -> {
        boolean many =
            schema.field(look.field()).filter(f -> f.type() == FieldType.CODES).isPresent();
        if (many) note(Said.of("file.severalCodesStandardKnows", "label", c.label()));
        return many
            ? "<ogc:PropertyIsLike wildCard=\"*\" singleChar=\"?\" escapeChar=\"\\\">"
                + property
                + OgcFilter.literal("*" + c.code() + "*")
                + "</ogc:PropertyIsLike>"
            : OgcFilter.in("PropertyIsEqualTo", property + OgcFilter.literal(c.code()));
      }
      case CLASS -> {
        double end = c.upTo().orElseThrow(() -> new OgcFilter.CannotSay("file.noUpperEnd"));
        String upper =
            OgcFilter.in(
                "PropertyIsLessThanOrEqualTo", property + OgcFilter.literal(Numbers.plain(end)));
        if (i == 0 || ready.entries().get(i - 1).upTo().isEmpty()) return upper;
        String lower = Numbers.plain(ready.entries().get(i - 1).upTo().getAsDouble());
        return OgcFilter.in(
            "And",
            OgcFilter.in("PropertyIsGreaterThan", property + OgcFilter.literal(lower)) + upper);
      }
      default -> {
        var rule = Rules.condition(c.rule(), new LayerScope(schema)).rule();
        if (rule.isEmpty()) throw new OgcFilter.CannotSay("file.ruleCantBeRead");
        return OgcFilter.of(rule.get().tree());
      }
    }
  }

  private void rule(LookClass c, String filter) {
    List<Symbol> drawn = c.stack().stream().filter(s -> s.suits(schema.kind())).toList();
    if (drawn.isEmpty()) return;
    x.in(
        "se:Rule",
        () -> {
          title(c.label());
          if (!filter.isEmpty()) x.raw(OgcFilter.in("Filter", filter));
          scale(look.farthest());
          drawn.forEach(this::symbol);
        });
  }

  private void title(String label) {
    if (!label.isBlank()) x.in("se:Description", () -> x.text("se:Title", label));
  }

  private void scale(double farthest) {
    if (look.nearest() > 0) x.text("se:MinScaleDenominator", Numbers.plain(look.nearest()));
    if (farthest > 0) x.text("se:MaxScaleDenominator", Numbers.plain(farthest));
  }

  private void symbol(Symbol s) {
    if (s instanceof Symbol.Mark m) x.in("se:PointSymbolizer", () -> graphic(m), "uom", PIXEL);
    else if (s instanceof Symbol.Area a) x.in("se:PolygonSymbolizer", () -> fill(a), "uom", PIXEL);
    else if (schema.kind() == GeometryKind.POLYGON)
      x.in("se:PolygonSymbolizer", () -> stroke((Symbol.Stroke) s), "uom", PIXEL);
    else {
      Symbol.Stroke l = (Symbol.Stroke) s;
      x.in("se:LineSymbolizer", () -> stroke(l), "uom", PIXEL);
      if (l.ticks()) x.in("se:LineSymbolizer", () -> ticks(l), "uom", PIXEL);
    }
  }

  private void graphic(Symbol.Mark m) {
    double side = Drawing.largest(m.size()) + 2 * m.outlineWidth();
    x.in(
        "se:Graphic",
        () -> {
          inline(Drawing.markPicture(look, m, Drawing.largest(m.size()), side));
          if (m.opacity() < 1) x.text("se:Opacity", Numbers.plain(m.opacity()));
          x.in("se:Size", () -> value(m.size(), 2 * m.outlineWidth()));
          if (!m.turnBy().isEmpty())
            x.in("se:Rotation", () -> x.raw(OgcFilter.property(m.turnBy())));
        });
  }

  private void inline(String svg) {
    x.in(
        "se:ExternalGraphic",
        () -> {
          x.text(
              "se:InlineContent",
              Base64.getEncoder().encodeToString(svg.getBytes(StandardCharsets.UTF_8)),
              "encoding",
              "base64");
          x.text("se:Format", "image/svg+xml");
        });
  }

  private void value(Size s, double more) {
    if (!s.varies()) {
      x.write(Numbers.plain(s.px() + more));
      return;
    }
    x.in(
        "se:Interpolate",
        () -> {
          x.in("se:LookupValue", () -> x.raw(OgcFilter.property(s.field())));
          point(s.from(), s.small() + more);
          point(s.to(), s.large() + more);
        },
        "fallbackValue",
        Numbers.plain(s.px() + more),
        "method",
        "numeric",
        "mode",
        "linear");
  }

  private void point(double data, double px) {
    x.in(
        "se:InterpolationPoint",
        () -> {
          x.text("se:Data", Numbers.plain(data));
          x.text("se:Value", Numbers.plain(px));
        });
  }

  private void parameter(String name, String value) {
    x.text("se:SvgParameter", value, "name", name);
  }

  private void stroke(Symbol.Stroke l) {
    x.in(
        "se:Stroke",
        () -> {
          parameter("stroke", l.colour());
          if (l.opacity() < 1) parameter("stroke-opacity", Numbers.plain(l.opacity()));
          x.in("se:SvgParameter", () -> value(l.width(), 0), "name", "stroke-width");
          parameter("stroke-linejoin", "round");
          double[] dash = l.dash().px(Drawing.largest(l.width()));
          StringBuilder b = new StringBuilder();
          for (double d : dash)
            b.append(b.length() == 0 ? "" : " ").append(Numbers.plain(Numbers.round(d, 2)));
          if (dash.length > 0) parameter("stroke-dasharray", b.toString());
        });
  }

  private void ticks(Symbol.Stroke l) {
    double width = Drawing.largest(l.width());
    x.in(
        "se:Stroke",
        () ->
            x.in(
                "se:GraphicStroke",
                () -> {
                  x.in(
                      "se:Graphic",
                      () -> {
                        inline(Drawing.tickPicture(l, width));
                        x.text("se:Size", Numbers.plain(8 * Math.max(1.6, width)));
                      });
                  x.text("se:InitialGap", "60");
                  x.text("se:Gap", "120");
                }));
  }

  private void fill(Symbol.Area a) {
    x.in(
        "se:Fill",
        () -> {
          if (a.hatch() != Symbol.Hatch.NONE)
            x.in(
                "se:GraphicFill",
                () ->
                    x.in(
                        "se:Graphic",
                        () -> {
                          inline(
                              "<svg xmlns=\"http://www.w3.org/2000/svg\" width=\"8\" height=\"8\" viewBox=\"0 0 8 8\">"
                                  + (a.colour().isEmpty()
                                      ? ""
                                      : "<rect width=\"8\" height=\"8\" fill=\""
                                          + a.colour()
                                          + "\" opacity=\""
                                          + Numbers.plain(a.opacity())
                                          + "\"/>")
                                  + "<path d=\""
                                  + a.hatch().path()
                                  + "\" fill=\"none\" stroke=\""
                                  + a.hatchColour()
                                  + "\" stroke-width=\""
                                  + Numbers.plain(a.hatchWidth())
                                  + "\"/></svg>");
                          x.text("se:Size", "8");
                        }));
          else {
            parameter("fill", a.colour().isEmpty() ? "#ffffff" : a.colour());
            parameter("fill-opacity", Numbers.plain(a.colour().isEmpty() ? 0 : a.opacity()));
          }
        });
  }

  private void label() {
    if (look.label().template().isBlank()) return;
    x.in(
        "se:Rule",
        () -> {
          title("Label");
          scale(look.label().farthest() > 0 ? look.label().farthest() : look.farthest());
          x.in(
              "se:TextSymbolizer",
              () -> {
                x.in("se:Label", () -> template(look.label().template()));
                x.in("se:Font", () -> parameter("font-size", Numbers.plain(look.label().px())));
                x.in(
                    "se:Halo",
                    () -> {
                      x.text("se:Radius", "1.5");
                      x.in("se:Fill", () -> parameter("fill", "#fbf9f3"));
                    });
                x.in("se:Fill", () -> parameter("fill", "#1f2a30"));
              },
              "uom",
              PIXEL);
        });
  }

  private void template(String t) {
    int at = 0;
    while (at < t.length()) {
      int open = t.indexOf('{', at);
      int close = open < 0 ? -1 : t.indexOf('}', open);
      if (close < 0) break;
      x.write(t.substring(at, open));
      String name = t.substring(open + 1, close).strip();
      if (schema.field(name).isPresent()) x.raw(OgcFilter.property(name));
      at = close + 1;
    }
    x.write(t.substring(at));
  }
}
