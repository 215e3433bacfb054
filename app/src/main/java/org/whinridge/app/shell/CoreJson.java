package org.whinridge.app.shell;

import com.eclipsesource.json.Json;
import com.eclipsesource.json.JsonArray;
import com.eclipsesource.json.JsonObject;
import com.eclipsesource.json.JsonValue;
import com.eclipsesource.json.ParseException;
import org.springframework.context.annotation.Bean;
import org.springframework.context.annotation.Configuration;
import tools.jackson.core.JsonGenerator;
import tools.jackson.core.JsonParser;
import tools.jackson.databind.DeserializationContext;
import tools.jackson.databind.JacksonModule;
import tools.jackson.databind.SerializationContext;
import tools.jackson.databind.deser.std.StdDeserializer;
import tools.jackson.databind.module.SimpleModule;
import tools.jackson.databind.ser.std.StdSerializer;

/**
 * The documents of core (schemas, looks, forms, geometries) within the records of the border: core
 * reads and writes them itself, since it must do so in the browser too.
 */
@Configuration(proxyBeanMethods = false)
class CoreJson {
  @Bean
  JacksonModule documentsOfCore() {
    return new SimpleModule("documents of core")
        .addSerializer(JsonValue.class, new Written())
        .addDeserializer(JsonValue.class, new Read<>(JsonValue.class))
        .addDeserializer(JsonObject.class, new Read<>(JsonObject.class))
        .addDeserializer(JsonArray.class, new Read<>(JsonArray.class));
  }

  private static final class Written extends StdSerializer<JsonValue> {
    Written() {
      super(JsonValue.class);
    }

    @Override
    public void serialize(JsonValue v, JsonGenerator out, SerializationContext c) {
      out.writeRawValue(v.toString());
    }
  }

  private static final class Read<T extends JsonValue> extends StdDeserializer<T> {
    private final Class<T> kind;

    Read(Class<T> kind) {
      super(kind);
      this.kind = kind;
    }

    @Override
    public T deserialize(JsonParser in, DeserializationContext c) {
      String text = c.readTree(in).toString();
      try {
        JsonValue v = Json.parse(text);
        if (kind.isInstance(v)) return kind.cast(v);
      } catch (ParseException e) {
        return c.reportInputMismatch(this, "a number that can't be kept");
      }
      return c.reportInputMismatch(this, "another kind of value");
    }
  }
}
