package org.whinridge.formats.look;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.InputStream;
import java.io.StringReader;
import java.net.URI;
import java.util.List;
import javax.xml.XMLConstants;
import javax.xml.transform.stream.StreamSource;
import javax.xml.validation.Schema;
import javax.xml.validation.SchemaFactory;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Test;
import org.w3c.dom.ls.LSInput;
import org.w3c.dom.ls.LSResourceResolver;
import org.whinridge.core.layer.Code;
import org.whinridge.core.layer.Field;
import org.whinridge.core.layer.FieldType;
import org.whinridge.core.look.Icons;
import org.whinridge.core.look.Look;
import org.whinridge.core.look.ReadyLook;
import org.whinridge.core.place.GeometryKind;
import org.whinridge.core.said.English;
import org.xml.sax.InputSource;

/** What is written is valid by the schemas of OGC 05-078r4 (SLD 1.1), which a package carries. */
class SldWriterTest {
  private static Schema sld;

  @BeforeAll
  static void schema() throws Exception {
    SchemaFactory f = SchemaFactory.newInstance(XMLConstants.W3C_XML_SCHEMA_NS_URI);
    f.setResourceResolver(new FromPackage());
    String at = "http://schemas.opengis.net/sld/1.1.0/StyledLayerDescriptor.xsd";
    StreamSource source = new StreamSource(FromPackage.open(at));
    source.setSystemId(at);
    sld = f.newSchema(source);
  }

  /** Schemas by their published address, out of the package; nothing is fetched. */
  private static final class FromPackage implements LSResourceResolver {
    static InputStream open(String address) {
      String path =
          address.startsWith("http://www.w3.org/")
              ? "/xlink" + address.substring(address.lastIndexOf('/'))
              : address.replace("http://schemas.opengis.net", "/ogc");
      return SldWriterTest.class.getResourceAsStream(path);
    }

    @Override
    public LSInput resolveResource(
        String type, String ns, String publicId, String systemId, String base) {
      String address = URI.create(base).resolve(systemId).toString();
      InputStream in = open(address);
      assertThat(in).as(address).isNotNull();
      InputSource s = new InputSource(in);
      return new Input(s, address);
    }
  }

  private record Input(InputSource source, String address) implements LSInput {
    @Override
    public java.io.Reader getCharacterStream() {
      return null;
    }

    @Override
    public void setCharacterStream(java.io.Reader r) {}

    @Override
    public InputStream getByteStream() {
      return source.getByteStream();
    }

    @Override
    public void setByteStream(InputStream s) {}

    @Override
    public String getStringData() {
      return null;
    }

    @Override
    public void setStringData(String s) {}

    @Override
    public String getSystemId() {
      return address;
    }

    @Override
    public void setSystemId(String s) {}

    @Override
    public String getPublicId() {
      return null;
    }

    @Override
    public void setPublicId(String s) {}

    @Override
    public String getBaseURI() {
      return address;
    }

    @Override
    public void setBaseURI(String s) {}

    @Override
    public String getEncoding() {
      return null;
    }

    @Override
    public void setEncoding(String s) {}

    @Override
    public boolean getCertifiedText() {
      return false;
    }

    @Override
    public void setCertifiedText(boolean b) {}
  }

  private static SldWriter.Sld written(GeometryKind kind, String look) throws Exception {
    var schema =
        new org.whinridge.core.layer.Schema(
            kind,
            List.of(
                Field.of("tag", "Tag", FieldType.TEXT),
                Field.of("kind", "Kind", FieldType.CODE)
                    .with(List.of(Code.of("w<r", "Weir & more"))),
                Field.of("grazed", "Grazed", FieldType.CODES),
                Field.of("width", "Width", FieldType.WHOLE).in("mm"),
                Field.of("bearing", "Bearing", FieldType.DECIMAL)),
            "tag",
            List.of("tag"));
    SldWriter.Sld out =
        SldWriter.write(ReadyLook.of(Look.read(look), schema), "Gates & \"more\"", English::of);
    sld.newValidator().validate(new StreamSource(new StringReader(out.xml())));
    return out;
  }

  @Test
  void pointsByCode() throws Exception {
    SldWriter.Sld out =
        written(
            GeometryKind.POINT,
            """
            {"by":"code","field":"kind","nearest":500,"farthest":50000,"classes":[{"label":"Weir & <more>","code":"w<r","stack":[{"draw":"mark","icon":"weir","turnBy":"bearing","outline":"#ffffff","opacity":0.5,"size":{"px":9,"field":"width","from":300,"to":1300,"small":10,"large":30}}]}],
             "other":{"label":"Everything else","stack":[{"draw":"mark"}]},"label":{"template":"{tag}, {width}"}}""");
    assertThat(English.of(out.notes())).isEmpty();
    assertThat(out.xml())
        .contains("<se:MinScaleDenominator>500</se:MinScaleDenominator>")
        .contains("<se:Rotation><ogc:PropertyName>bearing</ogc:PropertyName></se:Rotation>")
        .contains("w&lt;r");
  }

  @Test
  void linesByClassWithTicksAndDashes() throws Exception {
    SldWriter.Sld out =
        written(
            GeometryKind.LINE,
            """
            {"by":"class","field":"width","classes":[{"label":"low","upTo":3,"stack":[{"draw":"line","dash":"dash-dot","ticks":true,"opacity":0.4}]},{"label":"high","upTo":7.5,"stack":[{"draw":"line","width":{"px":3,"field":"width","from":1,"to":5,"small":2,"large":6}},{"draw":"mark"}]}]}""");
    assertThat(out.xml()).contains("PropertyIsGreaterThan").contains("se:GraphicStroke");
  }

  @Test
  void areasByRuleFirstMatchAndWhatCantBeSaid() throws Exception {
    String look =
        """
        {"by":"rule","classes":[{"label":"wide","rule":"width > 2 AND NOT (kind = 'w<r')","stack":[{"draw":"area","colour":"#112233","hatch":"waves"},{"draw":"line"}]},
          {"label":"listed","rule":"kind IN ('w<r') OR tag LIKE 'O%' OR width BETWEEN 1 AND 2 OR bearing IS NULL","stack":[{"draw":"area","colour":"#112233"}]},
          {"label":"near","rule":"S_INTERSECTS(place, POINT(1 2))","stack":[{"draw":"area","hatch":"dots"}]}]}""";
    SldWriter.Sld out = written(GeometryKind.POLYGON, look);
    assertThat(English.of(out.notes()))
        .singleElement()
        .satisfies(n -> assertThat(n).startsWith("“near” is left out"));
    assertThat(out.xml().split("<ogc:Not>").length).as("the first alone is drawn").isGreaterThan(2);
    written(GeometryKind.POLYGON, look.replace("\"by\":\"rule\"", "\"by\":\"rule\",\"all\":true"));
  }

  @Test
  void everyIconAndOneLook() throws Exception {
    for (String id : Icons.ids())
      written(
          GeometryKind.POINT,
          "{\"by\":\"one\",\"other\":{\"stack\":[{\"draw\":\"mark\",\"icon\":\"" + id + "\"}]}}");
    assertThat(
            written(
                    GeometryKind.POLYGON,
                    "{\"by\":\"code\",\"field\":\"grazed\",\"classes\":[{\"label\":\"Cattle\",\"code\":\"cow\",\"stack\":[{\"draw\":\"area\",\"colour\":\"#aabbcc\"}]}]}")
                .notes())
        .hasSize(1);
  }
}
