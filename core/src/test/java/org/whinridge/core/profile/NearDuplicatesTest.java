package org.whinridge.core.profile;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import java.util.Set;
import java.util.stream.IntStream;
import org.junit.jupiter.api.Test;
import org.whinridge.core.said.English;

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
    NearDuplicates.Group g = groups(Set.of(), "Brick", "30", "Brock", "6", "Steel", "5").get(0);
    assertThat(g.good()).isEqualTo("Brick");
    assertThat(g.values()).extracting(ValueCount::value).containsExactly("Brick", "Brock");
    assertThat(English.of(g.why())).containsExactly("1 letter apart");
    assertThat(groups(Set.of(), "Ash", "3", "Ask", "2")).isEmpty();
    assertThat(groups(Set.of(), "Timber revetment", "3", "Timber revetement", "1")).hasSize(1);
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
    assertThat(English.of(groups(Set.of(), "Concrete", "40", "Conc.", "9").get(0).why()))
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

  @Test
  void trueDifferencesAreNotProposed() {
    String[][] pairs = {
      {"<5", ">5"},
      {"C", "C#"},
      {"1.5 m", "15 m"},
      {"5.1 m", "1.5 m"},
      {"Bay 2 pier 3", "Bay 3 pier 2"},
      {"Type I", "Type II"},
      {"Type A", "Type B"},
      {"Bay 2a", "Bay a2"},
      {"North bank", "South bank"},
      {"northwest", "northeast"},
      {"Possible", "Impossible"},
      {"typical", "atypical"},
      {"internal", "external"},
      {"increasing", "decreasing"},
      {"-5 m", "5 m"},
      {"Weir", "Weir?"},
    };
    for (String[] p : pairs)
      assertThat(groups(Set.of(), p[0], "30", p[1], "1")).as(String.join(" / ", p)).isEmpty();
    // one letter apart, and both used: two values
    assertThat(groups(Set.of(), "Left", "30", "Lift", "20")).isEmpty();
    assertThat(groups(Set.of(), "Left", "30", "Lift", "2")).hasSize(1);
  }

  @Test
  void neighboursSwappedCountHoweverRare() {
    assertThat(groups(Set.of(), "Tide flap", "1", "Tide flpa", "1")).hasSize(1);
    assertThat(groups(Set.of(), "1,5 m", "2", "1.50 m", "1")).hasSize(1);
    assertThat(groups(Set.of(), "Timber revetment", "9", "Timberrevetment", "1")).hasSize(1);
  }

  @Test
  void accentsWrittenApartAndBlanksThatLookAlikeAreOneSpelling() {
    NearDuplicates.Group g =
        groups(Set.of(), "Caf\u0065\u0301", "9", "Caf\u00e9", "2", "Cafe\u200b", "1").get(0);
    assertThat(g.values()).hasSize(3);
    assertThat(groups(Set.of(), "Tide\u00a0flap", "4", "Tide flap", "4").get(0).good())
        .isEqualTo("Tide flap");
  }

  @Test
  void aHundredThousandValuesAreComparedWithTheFrequentOnesOnly() {
    List<ValueCount> many = new java.util.ArrayList<>();
    for (int i = 0; i < 135_000; i++)
      many.add(new ValueCount("street " + Integer.toString(i, 36) + " of " + i % 977, 1));
    many.add(new ValueCount("Harbour street", 40));
    many.add(new ValueCount("Harbuor street", 1));
    assertThat(NearDuplicates.groups(many, Set.of()))
        .extracting(NearDuplicates.Group::good)
        .contains("Harbour street");
  }
}
