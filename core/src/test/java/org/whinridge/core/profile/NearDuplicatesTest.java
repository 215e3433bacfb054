package org.whinridge.core.profile;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import java.util.Set;
import java.util.stream.IntStream;
import org.junit.jupiter.api.Test;

class NearDuplicatesTest {
  private static List<NearDuplicates.Group> groups(Set<String> list, String... valueAndCount) {
    return NearDuplicates.groups(
        IntStream.range(0, valueAndCount.length / 2)
            .mapToObj(
                i ->
                    new ValueCount(
                        valueAndCount[2 * i], Integer.parseInt(valueAndCount[2 * i + 1])))
            .toList(),
        list);
  }

  @Test
  void caseBlanksMarksAccentsAndWordOrderDoNotCount() {
    assertThat(
            groups(
                Set.of(),
                "Brick",
                "36",
                "brick ",
                "6",
                "BRICK",
                "2",
                "Łódź",
                "1",
                "lodz",
                "1",
                "Brick, red",
                "3",
                "red  brick",
                "1"))
        .extracting(g -> g.values().stream().map(ValueCount::value).toList())
        .containsExactlyInAnyOrder(
            List.of("Brick", "brick ", "BRICK"),
            List.of("Łódź", "lodz"),
            List.of("Brick, red", "red  brick"));
  }

  @Test
  void oneLetterApartIsNearInWordsOfFourLettersOrMore() {
    NearDuplicates.Group g = groups(Set.of(), "Brick", "30", "Brcik", "8", "Steel", "5").get(0);
    assertThat(g.good()).isEqualTo("Brick");
    assertThat(g.values()).extracting(ValueCount::value).containsExactly("Brick", "Brcik");
    assertThat(g.why()).containsExactly("1 letter apart");
    assertThat(groups(Set.of(), "Ash", "3", "Ask", "2")).isEmpty();
    assertThat(groups(Set.of(), "Timber revetment", "3", "Timber revetement", "2")).hasSize(1);
  }

  @Test
  void theGoodSpellingIsTheMostFrequentAndOfEqualsTheTidier() {
    assertThat(groups(Set.of(), "brick", "4", "Brick", "4", "Brick ", "4").get(0).good())
        .isEqualTo("Brick");
    assertThat(groups(Set.of(), "turf", "9", "Turf", "4").get(0).good()).isEqualTo("turf");
  }

  @Test
  void whatDiffersInDigitsIsDifferentAndNumbersAreNoSpellings() {
    assertThat(groups(Set.of(), "OS-1001", "1", "OS-1002", "1", "OS-1010", "1")).isEmpty();
    assertThat(groups(Set.of(), "0.10", "1", "-0.10", "1", "0.1", "2")).isEmpty();
    assertThat(groups(Set.of(), "DN 300", "3", "dn 300", "1", "DN 350", "2")).hasSize(1);
  }

  @Test
  void twoValuesThatAPublishedListBothHasAreNeverProposedToBeOne() {
    assertThat(groups(Set.of("Weir", "Wier"), "Weir", "30", "Wier", "20")).isEmpty();
    // but a third spelling is, and the list's own value is the good one though it is rarer
    NearDuplicates.Group g = groups(Set.of("Sluice"), "sluise", "30", "Sluice", "2").get(0);
    assertThat(g.good()).isEqualTo("Sluice");
  }

  @Test
  void anAbbreviationIsFoundWhenItCanStandForOneThingOnly() {
    assertThat(groups(Set.of(), "Concrete", "40", "Conc.", "9").get(0).why())
        .containsExactly("abbreviation");
    assertThat(groups(Set.of(), "Concrete", "40", "Concord", "9", "Conc.", "9")).isEmpty();
  }

  @Test
  void thousandsOfValuesTakeAMomentOnly() {
    List<ValueCount> many =
        IntStream.range(0, 20_000)
            .mapToObj(
                i -> new ValueCount("word" + (char) ('a' + i % 26) + "x".repeat(i % 40) + i, 1))
            .toList();
    assertThat(NearDuplicates.groups(many, Set.of())).isEmpty();
  }
}
