package org.whinridge.core.visit;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.Arrays;
import java.util.List;
import java.util.Map;
import java.util.stream.Collectors;
import org.junit.jupiter.api.Test;
import org.whinridge.core.place.GeometryKind;
import org.whinridge.core.said.English;
import org.whinridge.core.said.Said;
import org.whinridge.core.value.Value;
import org.whinridge.core.value.ValueType;

/** The list of reasons is whole, and a point's key is made in one way. */
class PointReasonTest {
  private static final List<PointReason> ALL =
      List.of(
          new PointReason.Needed(Said.NONE),
          new PointReason.Wanted(),
          new PointReason.WrongType(Value.text("x"), ValueType.NUMBER.said()),
          new PointReason.NotWhole("1.5"),
          new PointReason.NoTime("25:00"),
          new PointReason.OutOfRange(said("at most 9 mm"), "10"),
          new PointReason.OffStep(said("0.5 mm"), 0.3),
          new PointReason.Negative("-1"),
          new PointReason.TooShort(3, 1),
          new PointReason.TooLong(3, 4),
          new PointReason.TooFew(said("2 photos")),
          new PointReason.TooMany(said("2 rows")),
          new PointReason.OtherShape(said("a line")),
          new PointReason.CrossesItself(),
          new PointReason.NotInList("q"),
          new PointReason.DoesNotFit("a", "A", said("depth is over 3")),
          new PointReason.NotAlone("none", "None"),
          new PointReason.Taken(Value.text("OS-1"), said("OS-1")),
          new PointReason.NotFinite(),
          new PointReason.Broken(1, Said.NONE, said("depth is over 3")),
          new PointReason.RowUnconfirmed(),
          new PointReason.NoPlace(GeometryKind.LINE),
          new PointReason.Outside("Beats"),
          new PointReason.Inaccurate(12, 5));

  private static Said said(String text) {
    return Said.text(text);
  }

  @Test
  void everyReasonHasItsCodeAndEveryCodeAReason() {
    assertThat(ALL.stream().map(PointReason::code).distinct())
        .containsExactlyInAnyOrder(PointReason.Code.values());
    assertThat(ALL.stream().map(r -> (Object) r.getClass()))
        .containsExactlyInAnyOrder((Object[]) PointReason.class.getPermittedSubclasses());
    for (PointReason r : ALL) {
      assertThat(English.of(r.message())).as(r.toString()).isNotBlank();
      if (!r.cure().isEmpty()) assertThat(English.of(r.message())).endsWith(English.of(r.cure()));
    }
  }

  /** Two points of one question never share a key, so that none is confirmed for another. */
  @Test
  void keysTellPointsApart() {
    Map<String, List<PointReason>> byKey =
        ALL.stream()
            .collect(
                Collectors.groupingBy(
                    r -> OpenPoint.of("q", "", OpenPoint.Kind.FIRM, r).key().replace("q:", "")));
    byKey.forEach(
        (key, same) ->
            assertThat(same.stream().map(PointReason::code).distinct()).as(key).hasSize(1));
    assertThat(key("r1", List.of(Value.text("1:2"), Value.text("3"))))
        .isNotEqualTo(key("r1", List.of(Value.text("1"), Value.text("2:3"))))
        .isNotEqualTo(key("", List.of(Value.text("1:2"), Value.text("3"))));
  }

  private static String key(String row, List<Value> seenWith) {
    return OpenPoint.of("q", row, OpenPoint.Kind.SOFT, new PointReason.NotFinite(), seenWith).key();
  }

  @Test
  void aDryRunCountsEachReasonUnderAPart() {
    assertThat(Arrays.stream(PointReason.Code.values()).map(PointReason.Code::part))
        .allSatisfy(p -> assertThat(p).isNotBlank());
    assertThat(new PointReason.DoesNotFit("a", "A", said("w")).code().isMisfit()).isTrue();
    assertThat(new PointReason.OutOfRange(said("at most 9"), "10").code().isMisfit()).isFalse();
  }
}
