package org.whinridge.core.profile;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.Test;
import org.whinridge.core.layer.Code;
import org.whinridge.core.layer.Field;
import org.whinridge.core.layer.FieldType;
import org.whinridge.core.layer.Reading;
import org.whinridge.core.said.English;
import org.whinridge.core.said.Said;
import org.whinridge.core.value.Value;

/** Code lists that are made from what stands in a column. */
class FoundListTest {
  private static Survey.Column column(String name, String... valueAndTimes) {
    Survey s = new Survey();
    int row = 1;
    for (int i = 0; i < valueAndTimes.length; i += 2)
      for (int k = 0; k < Integer.parseInt(valueAndTimes[i + 1]); k++)
        s.see(row++, Map.of(), Map.of(name, Value.text(valueAndTimes[i])), Said.NONE);
    return s.columns().get(0);
  }

  @Test
  void aListMadeFromValuesKnowsThatAndOffersItsUnlikeSpellings() {
    Survey.Column c =
        column(
            "kind",
            "Tide flap",
            "30",
            "tide flap",
            "3",
            "Tide flpa",
            "1",
            "Weir",
            "12",
            "Weir ",
            "2");
    assertThat(c.field().type()).isEqualTo(FieldType.CODE);
    assertThat(c.field().codesFound()).isTrue();
    assertThat(c.field().codes())
        .extracting(Code::code)
        .containsExactly("Tide flap", "Tide flpa", "Weir", "tide flap");
    assertThat(English.of(c.guess().evidence()))
        .contains("blanks at the ends of 2 values are left out");
    assertThat(c.spellings())
        .singleElement()
        .satisfies(
            g -> {
              assertThat(g.good()).isEqualTo("Tide flap");
              assertThat(g.values())
                  .extracting(ValueCount::value)
                  .containsExactly("Tide flap", "tide flap", "Tide flpa");
            });
    Field stated = c.field().codesFound(false);
    assertThat(c.with(stated).spellings()).isEmpty();
    assertThat(Field.read(c.field().json()).codesFound()).isTrue();
  }

  @Test
  void blanksAtTheEndsNeverMakeASecondCode() {
    for (String s : List.of("Weir ", " Weir", "Weir\u00a0", "\tWeir", "Weir\u200b"))
      assertThat(Reading.PLAIN.read(Value.text(s), FieldType.CODE)).isEqualTo(Value.text("Weir"));
    // a free text keeps them, and the report says so
    Survey.Column c = column("note", "a b ", "1", "c", "1");
    assertThat(English.of(c.guess().evidence()))
        .contains("1 with blanks at the ends, which are kept");
  }

  @Test
  void fewTextsThatLookLikeSentencesAreNoCodeList() {
    Survey.Column c =
        column(
            "Remarks",
            "Needs a new grating.",
            "20",
            "Leans to the east",
            "10",
            "All is fine.",
            "9");
    assertThat(c.field().type()).isEqualTo(FieldType.TEXT);
    assertThat(column("Kind", "Tide flap", "20", "Weir", "10").field().type())
        .isEqualTo(FieldType.CODE);
  }

  @Test
  void aColumnWithoutAnyValueTwiceCanNameAFeature() {
    Survey s = new Survey();
    for (int i = 1; i <= 20; i++)
      s.see(
          i,
          Map.of(),
          Map.of(
              "plate", Value.text("K" + i * 7),
              "width", Value.of(i / 2),
              "length", Value.of(i * 1.5)),
          Said.NONE);
    List<Field> unique =
        s.columns().stream().filter(c -> c.isTagLike(20)).map(Survey.Column::field).toList();
    assertThat(unique).extracting(Field::name).containsExactly("plate");
    assertThat(ColumnMatch.tag(unique, unique)).isEqualTo("plate");
    assertThat(ColumnMatch.captions(unique, "plate")).containsExactly("plate");
  }
}
