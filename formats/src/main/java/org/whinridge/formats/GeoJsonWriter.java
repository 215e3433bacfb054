package org.whinridge.formats;

import java.io.IOException;
import java.io.OutputStream;
import java.nio.charset.StandardCharsets;
import org.whinridge.core.layer.Feature;
import org.whinridge.core.layer.Schema;

/** Streams features out as a GeoJSON FeatureCollection (RFC 7946). Close it to end the file. */
public final class GeoJsonWriter implements AutoCloseable {
  private final OutputStream out;
  private final Schema schema;
  private boolean first = true;

  /** Begins the file; {@code name} is told as the foreign member "name". */
  public GeoJsonWriter(OutputStream out, String name, Schema schema) throws IOException {
    this.out = out;
    this.schema = schema;
    text(
        "{\"type\":\"FeatureCollection\",\"name\":"
            + com.eclipsesource.json.Json.value(name)
            + ",\"features\":[\n");
  }

  /** Adds one feature. */
  public void add(Feature f) throws IOException {
    text((first ? "" : ",\n") + f.json(schema));
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
