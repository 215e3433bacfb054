package org.whinridge.formats.geojson;

import com.eclipsesource.json.Json;
import com.eclipsesource.json.JsonArray;
import com.eclipsesource.json.JsonObject;
import com.eclipsesource.json.JsonValue;
import java.io.FilterInputStream;
import java.io.IOException;
import java.io.InputStream;
import java.util.LinkedHashMap;
import java.util.Map;
import java.util.Optional;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.locationtech.jts.geom.Geometry;
import org.whinridge.core.place.GeometryJson;
import org.whinridge.core.said.Said;
import org.whinridge.core.said.Unfit;
import org.whinridge.core.value.Value;
import org.whinridge.formats.file.FileProblem;
import org.whinridge.formats.file.Limits;
import org.whinridge.formats.source.RawFeature;
import org.whinridge.formats.source.Source;
import org.whinridge.formats.source.ZAndM;
import tools.jackson.core.JacksonException;
import tools.jackson.core.JsonParser;
import tools.jackson.core.JsonToken;
import tools.jackson.core.StreamReadConstraints;
import tools.jackson.core.exc.StreamConstraintsException;
import tools.jackson.core.exc.UnexpectedEndOfInputException;
import tools.jackson.core.json.JsonFactory;

/**
 * Streams a GeoJSON file (RFC 7946): one feature in memory at a time. Takes a FeatureCollection, a
 * single Feature, or features one after the other, as newline-delimited GeoJSON and GeoJSON text
 * sequences (RFC 8142) have them. A geometry that can't be read is told with its feature; the
 * others go on.
 */
public final class GeoJsonReader {
  /** The column in which the id that a feature has beside its properties is offered. */
  public static final String ID = "feature id";

  private static final int MOST_PROPERTIES = Limits.COLUMNS;

  /** Numbers in one feature, which is in memory as a tree while it is read. */
  private static final int MOST_NUMBERS = 2_000_000;

  private static final int MOST_DEPTH = 50;

  /** How the parser names a sign that it does not expect. */
  private static final Pattern SIGN = Pattern.compile("character \\('(.)' \\(code");

  private static final JsonFactory FACTORY =
      JsonFactory.builder()
          .streamReadConstraints(
              StreamReadConstraints.builder()
                  .maxNestingDepth(MOST_DEPTH)
                  .maxStringLength(2_000_000)
                  .maxNameLength(2_000)
                  .build())
          .build();

  private final JsonParser p;
  private final Source.Sink sink;
  private int count;
  private int numbers;

  private GeoJsonReader(JsonParser p, Source.Sink sink) {
    this.p = p;
    this.sink = sink;
  }

  /**
   * Reads a file to its end.
   *
   * @return the number of features
   * @throws FileProblem when this is not JSON, not GeoJSON, or a feature can't be read; the message
   *     has the feature's number
   */
  public static int read(InputStream in, Source.Sink sink) throws FileProblem {
    try (JsonParser p =
        FACTORY.createParser(
            tools.jackson.core.ObjectReadContext.empty(), new WithoutSeparators(in))) {
      GeoJsonReader r = new GeoJsonReader(p, sink);
      r.file();
      return r.count;
    } catch (JacksonException e) {
      var at = e.getLocation();
      throw new FileProblem(
              at == null ? "file.json" : "file.jsonAt",
              "line",
              at == null ? 0 : at.getLineNr(),
              "column",
              at == null ? 0 : at.getColumnNr(),
              "why",
              plain(e))
          .because(e);
    }
  }

  /** What is wrong, for whoever made the file. */
  private static Said plain(JacksonException e) {
    String said = String.valueOf(e.getOriginalMessage());
    if (e instanceof UnexpectedEndOfInputException || said.startsWith("Unexpected end-of-input"))
      return Said.of("file.why.ends");
    if (e instanceof StreamConstraintsException)
      return said.contains("nesting")
          ? Said.of("file.why.nested", "most", MOST_DEPTH)
          : said.contains("name") ? Said.of("file.why.longName") : Said.of("file.why.longText");
    Matcher sign = SIGN.matcher(said);
    if (sign.find()) return Said.of("file.why.cantStand", "sign", sign.group(1));
    return said.contains("UTF-8") || said.contains("UTF-32")
        ? Said.of("file.why.notUtf8")
        : Said.of("file.why.noJson");
  }

  /** The separators of a text sequence (RFC 8142) as blanks, which JSON has between values. */
  private static final class WithoutSeparators extends FilterInputStream {
    private static final int RS = 0x1E;

    WithoutSeparators(InputStream in) {
      super(in);
    }

    @Override
    public int read() throws IOException {
      int b = super.read();
      return b == RS ? ' ' : b;
    }

    @Override
    public int read(byte[] b, int off, int len) throws IOException {
      int n = super.read(b, off, len);
      for (int i = off; i < off + n; i++) if (b[i] == RS) b[i] = ' ';
      return n;
    }
  }

  /**
   * The coordinate system that an older file names (GeoJSON before RFC 7946), as it is written: ""
   * for none. Reads the file's head only when the member stands before the features.
   */
  static String system(InputStream in) throws FileProblem {
    try (JsonParser p =
        FACTORY.createParser(
            tools.jackson.core.ObjectReadContext.empty(), new WithoutSeparators(in))) {
      if (p.nextToken() != JsonToken.START_OBJECT) return "";
      while (p.nextToken() == JsonToken.PROPERTY_NAME) {
        String name = p.currentName();
        p.nextToken();
        if (name.equals("crs")) return named(new GeoJsonReader(p, f -> {}).value(0));
        if (name.equals("features")) return "";
        p.skipChildren();
      }
      return "";
    } catch (JacksonException e) {
      return ""; // the reading itself will say where it is not sound
    }
  }

  private static String named(JsonValue crs) {
    if (!crs.isObject()) return "";
    JsonValue p = crs.asObject().get("properties");
    return p == null || !p.isObject() ? crs.toString() : p.asObject().getString("name", "");
  }

  private void file() throws FileProblem {
    if (p.nextToken() != JsonToken.START_OBJECT) throw new FileProblem("file.notGeojsonFileDoes");
    object();
    boolean several = false;
    while (p.nextToken() != null) {
      if (p.currentToken() != JsonToken.START_OBJECT || !single)
        throw new FileProblem("file.somethingFollowsEndGeojson");
      several = true;
      object();
    }
    if (count == 0 && !several) throw new FileProblem("file.fileHoldsNoFeatures");
  }

  private boolean single;

  private void object() throws FileProblem {
    String type = "";
    JsonObject lone = new JsonObject();
    boolean features = false;
    while (p.nextToken() != JsonToken.END_OBJECT) {
      String name = p.currentName();
      p.nextToken();
      if (name.equals("features") && p.currentToken() == JsonToken.START_ARRAY) {
        features = true;
        while (p.nextToken() != JsonToken.END_ARRAY) {
          if (p.currentToken() != JsonToken.START_OBJECT)
            throw new FileProblem("file.featureNoObject", "feature", count + 1);
          numbers = 0;
          feature(value(0).asObject());
        }
      } else if (name.equals("type") && p.currentToken() == JsonToken.VALUE_STRING)
        type = p.getString();
      else if (name.equals("geometry") || name.equals("properties") || name.equals("id"))
        lone.add(name, value(0));
      else p.skipChildren();
    }
    single = type.equals("Feature") && !features;
    if (single) feature(lone);
    else if (!type.equals("FeatureCollection") || !features)
      throw new FileProblem(
          type.isEmpty()
              ? Said.of("file.jsonButNotGeojson")
              : Said.of("file.geojsonTypeLayerMade", "type", type));
  }

  private void feature(JsonObject o) throws FileProblem {
    Limits.features(++count);
    JsonValue g = o.get("geometry");
    Optional<Geometry> geometry = Optional.empty();
    Said problem = Said.NONE;
    if (g != null && g.isObject())
      try {
        geometry = Optional.of(GeometryJson.readAnywhere(g.asObject())).filter(x -> !x.isEmpty());
      } catch (IllegalArgumentException e) {
        problem = Said.of("file.featureFault", "feature", count, "why", Unfit.said(e));
      }
    Map<String, Value> properties = new LinkedHashMap<>();
    JsonValue ps = o.get("properties");
    if (ps != null && ps.isObject()) {
      if (ps.asObject().size() > MOST_PROPERTIES)
        throw new FileProblem(
            "file.tooManyProperties",
            "feature",
            count,
            "n",
            ps.asObject().size(),
            "most",
            MOST_PROPERTIES);
      for (JsonObject.Member m : ps.asObject()) properties.put(m.getName(), scalar(m.getValue()));
    }
    if (g != null) ZAndM.put(g, properties);
    JsonValue id = o.get("id");
    if (id != null && (id.isString() || id.isNumber())) properties.put(ID, scalar(id));
    sink.take(new RawFeature(count, geometry, properties, problem, java.util.List.of()));
  }

  /**
   * A property: scalars as they are; an object, or an array of anything but text, as its JSON text.
   */
  private static Value scalar(JsonValue v) {
    if (v.isNumber()) {
      double d = v.asDouble();
      boolean exact = Math.abs(d) < 9007199254740992.0 || v.toString().contains(".");
      return exact ? Value.of(d) : Value.text(v.toString()); // long ids keep their digits as text
    }
    if (v.isArray()
        && !v.asArray().isEmpty()
        && v.asArray().values().stream().allMatch(JsonValue::isString))
      return Value.many(v.asArray().values().stream().map(x -> Value.text(x.asString())).toList());
    if (v.isArray() || v.isObject()) return Value.text(v.toString());
    return v.isNull()
        ? Value.EMPTY
        : v.isBoolean() ? Value.of(v.asBoolean()) : Value.text(v.asString());
  }

  /** The value at the parser's place as a small tree. */
  private JsonValue value(int depth) throws FileProblem {
    switch (p.currentToken()) {
      case START_OBJECT:
        {
          JsonObject o = new JsonObject();
          while (p.nextToken() != JsonToken.END_OBJECT) {
            String name = p.currentName();
            p.nextToken();
            if (o.size() > MOST_PROPERTIES + 1) p.skipChildren();
            else o.add(name, value(depth + 1));
          }
          return o;
        }
      case START_ARRAY:
        {
          JsonArray a = new JsonArray();
          while (p.nextToken() != JsonToken.END_ARRAY) a.add(value(depth + 1));
          return a;
        }
      case VALUE_STRING:
        return Json.value(p.getString());
      case VALUE_NUMBER_INT:
      case VALUE_NUMBER_FLOAT:
        {
          if (++numbers > MOST_NUMBERS)
            throw new FileProblem("file.tooManyPositions", "feature", count + 1);
          double d = p.getDoubleValue();
          if (Double.isNaN(d) || Double.isInfinite(d))
            throw new FileProblem(
                "file.numberTooLarge",
                "feature",
                count + 1,
                "number",
                p.getString().substring(0, Math.min(40, p.getString().length())));
          return p.currentToken() == JsonToken.VALUE_NUMBER_INT && Math.abs(d) >= 9007199254740992.0
              ? Json.value(p.getString())
              : Json.value(d);
        }
      case VALUE_TRUE:
        return Json.TRUE;
      case VALUE_FALSE:
        return Json.FALSE;
      default:
        return Json.NULL;
    }
  }
}
