package org.whinridge.formats.geojson;

import com.eclipsesource.json.Json;
import com.eclipsesource.json.JsonObject;
import java.io.IOException;
import java.io.OutputStream;
import java.nio.charset.StandardCharsets;
import java.util.List;
import java.util.Optional;
import org.locationtech.jts.geom.Geometry;
import org.whinridge.core.layer.Feature;
import org.whinridge.core.place.GeometryJson;
import org.whinridge.core.value.Value;
import org.whinridge.core.value.ValueJson;
import org.whinridge.formats.out.LayerWriter;
import org.whinridge.formats.out.OutColumns;
import org.whinridge.formats.out.OutLayer;

/**
 * Streams features out as a GeoJSON FeatureCollection (RFC 7946). In another system than WGS 84 it
 * names that in the older member "crs" (GeoJSON 2008), which RFC 7946 does not have.
 */
public final class GeoJsonWriter implements LayerWriter {
  private final OutputStream out;
  private final OutLayer layer;
  private final List<OutColumns.Column> columns;
  private boolean first = true;

  /** Begins the file; the layer's name is told as the foreign member "name". */
  public GeoJsonWriter(OutputStream out, OutLayer layer) throws IOException {
    this.out = out;
    this.layer = layer;
    this.columns = layer.columns();
    JsonObject crs =
        new JsonObject()
            .add("type", "name")
            .add(
                "properties",
                new JsonObject()
                    .add("name", "urn:ogc:def:crs:" + layer.system().code().replace(":", "::")));
    text(
        "{\"type\":\"FeatureCollection\",\"name\":"
            + Json.value(layer.name())
            + (layer.system().isWgs84() ? "" : ",\"crs\":" + crs)
            + ",\"features\":[\n");
  }

  @Override
  public void add(Feature f) throws IOException {
    JsonObject properties = new JsonObject();
    for (OutColumns.Column c : columns) {
      Value v = c.of(f);
      properties.add(c.name(), ValueJson.write(v));
    }
    Optional<Geometry> g = layer.geometry(f);
    JsonObject o =
        new JsonObject()
            .add("type", "Feature")
            .add("id", f.id())
            .add("geometry", g.isPresent() ? GeometryJson.write(g.get()) : Json.NULL)
            .add("properties", properties);
    text((first ? "" : ",\n") + o);
    first = false;
  }

  private void text(String s) throws IOException {
    out.write(s.getBytes(StandardCharsets.UTF_8));
  }

  @Override
  public void close() throws IOException {
    text("\n]}\n");
    out.flush();
  }
}
