package org.whinridge.app.shell;

import com.eclipsesource.json.Json;
import com.eclipsesource.json.JsonArray;
import com.eclipsesource.json.JsonObject;
import com.eclipsesource.json.JsonValue;
import com.eclipsesource.json.ParseException;
import org.springframework.beans.factory.ObjectProvider;
import org.springframework.boot.jackson.autoconfigure.JsonFactoryBuilderCustomizer;
import org.springframework.context.annotation.Bean;
import org.springframework.context.annotation.Configuration;
import org.whinridge.core.said.Said;
import tools.jackson.core.JsonGenerator;
import tools.jackson.core.JsonParser;
import tools.jackson.core.StreamReadConstraints;
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
  JsonFactoryBuilderCustomizer noDeeperThanTheJob() {
    return b ->
        b.streamReadConstraints(
            StreamReadConstraints.builder().maxNestingDepth(JsonDepth.MOST).build());
  }

  @Bean
  JacksonModule documentsOfCore(ObjectProvider<Catalogue> catalogue) {
    return new SimpleModule("documents of core")
        .addSerializer(Said.class, new InWords(catalogue))
        .addSerializer(JsonValue.class, new Written(catalogue))
        .addDeserializer(JsonValue.class, new Read<>(JsonValue.class))
        .addDeserializer(JsonObject.class, new Read<>(JsonObject.class))
        .addDeserializer(JsonArray.class, new Read<>(JsonArray.class));
  }

  /**
   * What is told, in the words of whoever asks. The catalogue itself is read as JSON, so it is
   * asked for late.
   */
  private static final class InWords extends StdSerializer<Said> {
    private final ObjectProvider<Catalogue> catalogue;

    InWords(ObjectProvider<Catalogue> catalogue) {
      super(Said.class);
      this.catalogue = catalogue;
    }

    @Override
    public void serialize(Said said, JsonGenerator out, SerializationContext c) {
      out.writeString(catalogue.getObject().say(said));
    }
  }

  private static final class Written extends StdSerializer<JsonValue> {
    private final ObjectProvider<Catalogue> catalogue;

    Written(ObjectProvider<Catalogue> catalogue) {
      super(JsonValue.class);
      this.catalogue = catalogue;
    }

    @Override
    public void serialize(JsonValue v, JsonGenerator out, SerializationContext c) {
      String text = v.toString();
      out.writeRawValue(
          text.contains("{\"say\":") ? catalogue.getObject().worded(v).toString() : text);
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
