package org.whinridge.formats.look;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.awt.geom.AffineTransform;
import java.nio.charset.StandardCharsets;
import java.util.Random;
import org.junit.jupiter.api.Test;
import org.whinridge.core.look.Icon;
import org.whinridge.core.said.English;
import org.whinridge.formats.file.FileProblem;

class IconReaderTest {
  private static IconReader.Read read(String svg) throws FileProblem {
    return IconReader.read(svg.getBytes(StandardCharsets.UTF_8), "Hut");
  }

  @Test
  void shapesBecomePathsInTheBox() throws Exception {
    IconReader.Read r =
        read(
            "<svg xmlns='http://www.w3.org/2000/svg' viewBox='0 0 48 24'><g transform='translate(4 0)'><rect x='0' y='0' width='8' height='8' fill='#ff0000'/></g><circle cx='24' cy='12' r='4'/><path style='fill:none;stroke:#00f;stroke-width:2' d='m0 0l48 24'/></svg>");
    assertThat(English.of(r.notes())).isEmpty();
    assertThat(r.icon().parts()).hasSize(3);
    // 48 by 24 goes into 24 by 24 at half the size, six down
    assertThat(r.icon().parts().get(0))
        .isEqualTo(new Icon.Part("M2 6L6 6L6 10L2 10Z", "#ff0000", Icon.NONE, 0));
    assertThat(r.icon().parts().get(1).fill()).isEqualTo(Icon.OF_SYMBOL);
    assertThat(r.icon().parts().get(2))
        .isEqualTo(new Icon.Part("M0 6L24 18", Icon.NONE, "#0000ff", 1));
  }

  @Test
  void arcsFollowTheirCircle() {
    // a half circle of radius 5 from (0,0) to (10,0): the curve's points lie 5 from (5,0)
    String moved = PathMover.move("M0 0A5 5 0 0 1 10 0", new AffineTransform());
    assertThat(moved).startsWith("M0 0C").endsWith(" 10 0").contains("5 -5");
    assertThat(PathMover.move("M0 0a5 5 0 11.1 0", new AffineTransform()))
        .as("flags need no blank")
        .startsWith("M0 0C");
  }

  @Test
  void scriptsAndReferencesDoNotComeThrough() throws Exception {
    IconReader.Read r =
        read(
            "<svg xmlns='http://www.w3.org/2000/svg' xmlns:xlink='http://www.w3.org/1999/xlink' viewBox='0 0 24 24' onload='alert(1)'><script>alert(2)</script><style>@import url(http://x)</style><image xlink:href='http://x/y.png'/><use href='#a'/><foreignObject><body/></foreignObject><a href='javascript:alert(3)'><path onclick='alert(4)' fill='url(#g)' d='M0 0H24V24Z'/></a></svg>");
    String json = r.icon().json().toString();
    assertThat(json)
        .doesNotContain("alert")
        .doesNotContain("http")
        .doesNotContain("url")
        .doesNotContain("script");
    assertThat(English.of(r.notes()))
        .anyMatch(n -> n.contains("script"))
        .anyMatch(n -> n.contains("image"))
        .anyMatch(n -> n.contains("reference"));
  }

  @Test
  void whatIsNoIconIsRefusedInWords() {
    String entity =
        "<!DOCTYPE svg [<!ENTITY a 'M0 0'>]><svg viewBox='0 0 9 9'><path d='&a;'/></svg>";
    for (String s :
        new String[] {
          "",
          "hello",
          "<html/>",
          "<svg",
          "<svg/>",
          entity,
          "<svg viewBox='0 0 0 0'><path d='M0 0H1'/></svg>",
          "<svg viewBox='a b c d'><path d='M0 0H1'/></svg>",
          "<svg viewBox='0 0 9 9'><path d='M0 0Lx'/></svg>",
          "<svg viewBox='0 0 9 9'><path d='M0 0 9'/></svg>",
          "<svg viewBox='0 0 9 9'><path transform='warp(3)' d='M0 0H9'/></svg>",
          "<svg viewBox='0 0 9 9'><path d='M0 0H1e30'/></svg>",
          "<svg viewBox='0 0 9 9'>" + "<path d='M0 0H1'/>".repeat(80) + "</svg>",
          "<svg viewBox='0 0 9 9'>"
              + "<g>".repeat(200)
              + "<path d='M0 0H1'/>"
              + "</g>".repeat(200)
              + "</svg>"
        })
      assertThatThrownBy(() -> read(s))
          .as(s.substring(0, Math.min(60, s.length())))
          .isInstanceOf(FileProblem.class);
    assertThatThrownBy(
            () -> read("<svg viewBox='0 0 9 9'><path d='M" + " 1".repeat(15_000) + "'/></svg>"))
        .satisfies(English.says("20,000 are the most"));
    assertThatThrownBy(() -> IconReader.read(new byte[10_000_000], "x"))
        .satisfies(English.says("200,000 bytes"));
  }

  /** Torn files are read or refused in words; what comes out is always an icon. */
  @Test
  void tornFilesNeverBreak() {
    Random r = new Random(8);
    String good =
        "<svg viewBox='0 0 24 24'><g transform='rotate(3 4 5) matrix(1 0 0 1 2 3)'><path d='M1 1c1 2 3 4 5 6s1 1 2 2q1 1 2 2t3 3a1 2 3 0 1 4 4z' stroke='red'/><polygon points='1,2 3,4 5,6'/></g></svg>";
    for (int i = 0; i < 3000; i++) {
      StringBuilder b = new StringBuilder(good);
      for (int k = 0; k < 1 + r.nextInt(4); k++) {
        int at = r.nextInt(b.length());
        if (r.nextBoolean()) b.deleteCharAt(at);
        else b.setCharAt(at, "M(9.e-,'<>\"z&#".charAt(r.nextInt(14)));
      }
      try {
        assertThat(Icon.read(read(b.toString()).icon().json())).as(b.toString()).isPresent();
      } catch (FileProblem e) {
        assertThat(English.of(e)).isNotBlank();
      }
    }
  }
}
