package org.whinridge.core.place;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.Collections;
import java.util.List;
import java.util.Random;
import org.junit.jupiter.api.Test;
import org.locationtech.jts.geom.Envelope;

/** Boxes around boxes, over the date line too. */
class ReachTest {
  private static Envelope box(double west, double east) {
    return new Envelope(west, east, -1, 1);
  }

  @Test
  void theNarrowestBoxOfSomeThatLieOnOneSideIsTheirOwn() {
    assertThat(Reach.narrowest(List.of(box(-10, -9), box(3, 4)))).isEqualTo(box(-10, 4));
    assertThat(Reach.narrowest(List.of(box(5, 5)))).isEqualTo(box(5, 5));
    assertThat(Reach.narrowest(List.of(new Envelope())).isNull()).isTrue();
  }

  /** An area that was drawn over the line comes in two parts, one on each side. */
  @Test
  void overTheDateLineItGoesBeyond180AndIsTwoBoxes() {
    Envelope over = Reach.narrowest(List.of(box(-180, -179), box(178, 180)));
    assertThat(over).isEqualTo(box(178, 181));
    assertThat(Reach.boxes(over, 0)).containsExactly(box(178, 180), box(-180, -179));
    assertThat(Reach.narrowest(List.of(box(-179, -178), box(177, 178)))).isEqualTo(box(177, 182));
  }

  @Test
  void allRoundItIsAllRound() {
    assertThat(Reach.narrowest(List.of(box(-180, 180)))).isEqualTo(box(-180, 180));
    Envelope thirds = Reach.narrowest(List.of(box(-180, -60), box(-60, 60), box(60, 180)));
    assertThat(thirds.getWidth()).isEqualTo(360);
  }

  /** Whatever they are: all lie in its boxes, and no other beginning makes a narrower one. */
  @Test
  void allLieInItAndNoneIsNarrower() {
    Random random = new Random(19);
    for (int n = 0; n < 2000; n++) {
      List<Envelope> all = new ArrayList<>();
      for (int i = random.nextInt(6); i >= 0; i--) {
        double west = random.nextInt(356) - 180;
        all.add(box(west, west + random.nextInt(4)));
      }
      Envelope narrowest = Reach.narrowest(all);
      List<Envelope> boxes = Reach.boxes(narrowest, 0);
      for (Envelope e : all)
        assertThat(boxes.stream().anyMatch(b -> b.covers(e)))
            .as("%s in %s of %s", e, narrowest, all)
            .isTrue();
      double least = 360;
      for (Envelope first : all) {
        double width = 0;
        for (Envelope e : all) {
          double off = ((e.getMinX() - first.getMinX()) % 360 + 360) % 360;
          width = Math.max(width, off + e.getWidth());
        }
        least = Math.min(least, width);
      }
      assertThat(narrowest.getWidth()).isEqualTo(least);
      Collections.shuffle(all, random);
      assertThat(Reach.narrowest(all)).isEqualTo(narrowest);
    }
  }
}
