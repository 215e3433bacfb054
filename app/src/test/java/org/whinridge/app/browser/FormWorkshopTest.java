package org.whinridge.app.browser;

import static com.microsoft.playwright.assertions.PlaywrightAssertions.assertThat;

import com.microsoft.playwright.Locator;
import com.microsoft.playwright.Page;
import java.nio.file.Path;
import java.util.List;
import org.junit.jupiter.api.Test;

/** Building a form by typing, wiring and arranging; taking back; two people in one draft. */
class FormWorkshopTest extends FormStories {
  /** Lines typed one by one stand as they would together: a section takes what comes after it. */
  @Test
  void aSectionThatIsTypedTakesTheNextLine() {
    Page desk = form("coordinator");
    desk.click("#as-text");
    desk.fill("#text", "# Visit\n");
    desk.click("#keep-text");
    assertThat(desk.locator("#questions")).containsText("An empty sheet");
    for (String line :
        List.of("Silt depth (mm) 0..500", "# Outside", "Lining: brick | timber", "Seen: yes/no"))
      type(desk, line);
    desk.click("[data-name=silt_depth]");
    for (String line : List.of("# Between", "Cracks: wide | hairline")) type(desk, line);
    stored(desk);
    desk.click("#as-text");
    assertThat(desk.locator("#text"))
        .hasValue(
            java.util.regex.Pattern.compile(
                "# Visit\\nSilt depth .*\\n# Between\\nCracks .*\\n# Outside\\nLining .*\\nSeen .*\\n?",
                java.util.regex.Pattern.DOTALL));
  }

  @Test
  void aFormIsBuiltByTypingWiringAndArranging() {
    Page desk = form("coordinator");
    // an empty sheet: everything goes through the text
    desk.click("#as-text");
    desk.fill("#text", "# Visit\n");
    desk.click("#keep-text");
    assertThat(desk.locator("#questions")).containsText("An empty sheet");
    type(desk, "Seen from the bank: yes/no *");
    desk.fill("#typing", "Silt level (mm) 0..500\nLining: bricks\nCracks: + wide | hairline");
    assertThat(desk.locator("#understood")).containsText("Whole number, in mm, 0 to 500");
    assertThat(desk.locator("#understood .line-problem")).containsText("no kind of question");
    desk.press("#typing", "Enter");
    assertThat(desk.locator("#typing")).hasValue("Lining: bricks");
    desk.fill("#typing", "Lining: brick | timber");
    desk.press("#typing", "Enter");
    is(desk, "seen_from_the_bank", "silt_level", "cracks", "lining");
    assertThat(desk.locator("#live-sheet [data-question=lining]")).isVisible();

    desk.click("[data-wire=kind]");
    is(desk, "seen_from_the_bank", "silt_level", "cracks", "lining", "kind");
    assertThat(desk.locator("#wiring .wired")).hasCount(1);

    Locator kind = desk.locator("[data-name=kind]");
    kind.focus();
    kind.press("Alt+ArrowUp");
    is(desk, "seen_from_the_bank", "silt_level", "cracks", "kind", "lining");
    desk.locator("[data-name=silt_level]").click();
    desk.locator("[data-name=silt_level]").click();
    desk.locator("[data-name=cracks]")
        .click(
            new Locator.ClickOptions()
                .setModifiers(List.of(com.microsoft.playwright.options.KeyboardModifier.CONTROL)));
    desk.locator("[data-name=kind]")
        .click(
            new Locator.ClickOptions()
                .setModifiers(List.of(com.microsoft.playwright.options.KeyboardModifier.SHIFT)));
    assertThat(desk.locator("#chosen")).containsText("2 chosen");
    desk.click("#section-of");
    assertThat(desk.locator("#questions [data-section]")).hasCount(3);
    Locator title = desk.locator("[data-section='1'] [data-part=section-title]");
    assertThat(title).isFocused();
    title.fill("Damage");
    title.press("Enter");
    stored(desk);

    String end = text(desk);
    org.assertj.core.api.Assertions.assertThat(end)
        .contains("# Damage\n")
        .contains("Silt level (mm) {silt_level} 0..500\n");
    for (int i = 0; i < 3; i++) {
      desk.click("#undo");
      stored(desk);
    }
    assertThat(desk.locator("#questions [data-section]")).hasCount(1);
    desk.reload(); // what was taken back can be done again later too
    desk.waitForSelector("#form-page[data-ready]");
    for (int i = 0; i < 3; i++) {
      desk.click("#redo");
      stored(desk);
    }
    org.assertj.core.api.Assertions.assertThat(text(desk)).isEqualTo(end);
    org.assertj.core.api.Assertions.assertThat(stage.scriptErrors()).isEmpty();
  }

  @Test
  void twoPeopleInOneDraftOverwriteNothing() {
    Page one = form("coordinator");
    String address = one.url();
    Page two = stage.desk("coordinator");
    two.navigate(address);
    two.waitForSelector("#form-page[data-ready]");
    one.click("[data-name=notes]");
    one.fill("#e-hint", "what the first saw");
    one.press("#e-hint", "Enter");
    stored(one);
    // each sees where the other is, and what the other changed
    assertThat(two.locator("#others")).containsText("coordinator is at “Notes”");
    two.click("[data-name=notes]");
    assertThat(two.locator("#e-hint")).hasValue("what the first saw");
    two.click("[data-name=condition]");
    two.fill("#e-hint", "what the second saw");
    two.press("#e-hint", "Enter");
    stored(two);
    one.click("[data-name=condition]");
    assertThat(one.locator("#e-hint")).hasValue("what the second saw");
  }

  @Test
  void severalAreChosenByARectangleAndCopiedBetweenForms() {
    Page desk = form("coordinator");
    desk.context().grantPermissions(List.of("clipboard-read", "clipboard-write"));
    var tag = desk.locator("[data-line=tag] .margin").boundingBox();
    var material = desk.locator("[data-line=material] .margin").boundingBox();
    desk.mouse().move(tag.x + tag.width - 12, tag.y + 25);
    desk.mouse().down();
    desk.mouse().move(material.x + 60, material.y + 10);
    desk.mouse().move(material.x + 50, material.y + 20);
    desk.mouse().up();
    assertThat(desk.locator("#chosen")).containsText("3 chosen");
    desk.keyboard().press("Control+c");
    Page other = desk.context().newPage();
    other.navigate(stage.base() + "/p/ostrey/forms/new");
    other.check("input[name=start][value=NOTHING]");
    other.click("#form-new button");
    other.waitForSelector("#form-page[data-ready]");
    other.locator("h2").first().click();
    other.keyboard().press("Control+v");
    is(other, "tag", "kind", "material");
    other.keyboard().press("Control+v");
    is(other, "tag", "kind", "material", "tag_2", "kind_2", "material_2");
  }

  @Test
  void aFormIsWrittenBeforeItsLayerAndTranslatedAndItsCodesPasted() {
    Page desk = stage.desk("coordinator");
    desk.navigate(stage.base() + "/p/ostrey/forms/new");
    desk.selectOption("#layer", "");
    desk.check("input[name=start][value=NOTHING]");
    desk.click("#form-new button");
    desk.waitForSelector("#form-page[data-ready]");
    desk.fill("#title", "Mooring posts");
    desk.press("#title", "Tab");
    stored(desk);
    type(desk, "Where it stands: point\nTag: tag *\nWood {wood}: oak | larch\nPhoto x1..2");
    choose(desk, "wood");
    desk.fill("#codes-pasted", "fir\tDouglas fir\noak\tOak once more\nash\t\"Ash, green\"");
    desk.click("#add-codes");
    stored(desk);
    assertThat(desk.locator("#e-codes")).containsText("was left out");
    assertThat(desk.locator("#live-sheet [data-question=wood] .choice")).hasCount(4);
    desk.click("#as-languages");
    desk.fill("#new-language", "cy");
    desk.press("#new-language", "Enter");
    assertThat(desk.locator("#missing")).containsText("of 9 texts are missing");
    desk.locator("#languages td input").first().fill("Pyst angori");
    desk.locator("#languages td input").first().press("Tab");
    assertThat(desk.locator("#missing")).containsText("8 of 9");
    desk.click("#as-languages");
    desk.click("#make-layer");
    assertThat(desk.locator("main")).containsText("A layer of points");
    desk.click("main button.main");
    desk.waitForSelector("#form-page[data-ready]");
    assertThat(desk.locator("#wiring .wired")).hasCount(2);
    desk.click("#publish");
    desk.click("#publish-now");
    assertThat(desk.locator(".done")).containsText("Edition 1 is published");
    assertThat(desk.locator("text=Plan a round")).isVisible();
  }

  @Test
  void aWorkbookComesInIsMendedAndGoesOut() throws Exception {
    Page desk = stage.desk("coordinator");
    desk.navigate(stage.base() + "/p/ostrey/forms/new");
    desk.setInputFiles(
        "input[name=file]", Path.of("../formats/src/test/resources/xlsform/bank-visit.xlsx"));
    desk.click("#form-from-file button");
    desk.waitForSelector("#form-page[data-ready]");
    assertThat(desk.locator(".done")).isVisible();
    int before = desk.locator("#questions [data-line]").count();
    type(desk, "Seen by a second person: yes/no");
    assertThat(desk.locator("#questions [data-line]")).hasCount(before + 1);
    String text = text(desk);
    desk.click("#publish");
    Path out = temporary().resolve("out.xlsx");
    desk.waitForDownload(() -> desk.click("text=XLSForm workbook")).saveAs(out);
    desk.navigate(stage.base() + "/p/ostrey/forms/new");
    desk.setInputFiles("input[name=file]", out);
    desk.click("#form-from-file button");
    desk.waitForSelector("#form-page[data-ready]");
    org.assertj.core.api.Assertions.assertThat(text(desk)).isEqualTo(text);
  }

  @Test
  void whatIsPublishedIsComparedAndCopiedBack() {
    Page desk = form("coordinator");
    desk.click("#publish");
    desk.click("#publish-now");
    assertThat(desk.locator(".done")).containsText("Edition 1 is published");
    desk.click("text=Back to the draft");
    desk.waitForSelector("#form-page[data-ready]");
    String first = text(desk);
    type(desk, "Second look: date *");
    desk.click("#publish");
    assertThat(desk.locator("#changes")).containsText("Second look");
    assertThat(desk.locator("#publish-dry")).containsText("of 240 features pass");
    assertThat(desk.locator("#publish-dry")).containsText("against edition 1: 0 better");
    assertThat(desk.locator("#changes")).containsText("needed");
    desk.click("#publish-now");
    assertThat(desk.locator(".done")).containsText("Edition 2 is published");
    desk.locator("text=Copy into the draft").last().click();
    desk.waitForSelector("#form-page[data-ready]");
    org.assertj.core.api.Assertions.assertThat(text(desk)).isEqualTo(first);
    desk.click("#undo");
    stored(desk);
    org.assertj.core.api.Assertions.assertThat(text(desk)).contains("Second look");
  }

  @Test
  void hundredsOfLinesArePastedAndThoseThatCantBeReadStay() {
    Page desk = bare();
    StringBuilder lines = new StringBuilder();
    for (int i = 0; i < 500; i++)
      lines.append("Line ").append(i).append(i % 13 == 5 ? ": bricks\n" : " (mm) 0..9\n");
    pasted(desk, "#typing", lines.toString().strip());
    assertThat(desk.locator("#understood")).containsText("lines more");
    desk.press("#typing", "Enter");
    assertThat(desk.locator("#questions [data-line]"))
        .hasCount(
            461,
            new com.microsoft.playwright.assertions.LocatorAssertions.HasCountOptions()
                .setTimeout(60_000));
    org.assertj.core.api.Assertions.assertThat(desk.inputValue("#typing").lines().count())
        .isEqualTo(39);
  }

  @Test
  void aListOfFiveThousandCodesIsSearched() {
    Page desk = bare();
    type(desk, "Species {species}: oak | larch");
    choose(desk, "species");
    StringBuilder codes = new StringBuilder();
    for (int i = 0; i < 5000; i++)
      codes.append("s").append(i).append("\tSpecies ").append(i).append('\n');
    pasted(desk, "#codes-pasted", codes.toString());
    desk.click("#add-codes");
    stored(desk);
    assertThat(desk.locator("#e-codes tbody tr")).hasCount(40);
    desk.fill("#code-sought", "4711");
    assertThat(desk.locator("#e-codes tbody tr")).hasCount(1);
    Locator answer = desk.locator("#live-sheet [data-question=species]");
    answer.locator("input").fill("species 481");
    assertThat(answer.locator(".choice")).hasCount(15); // 481, 4810 to 4819, and 1481 to 4481
    answer.locator("[data-code=s4810]").click();
    assertThat(answer.locator("output")).containsText("Species 4810");
  }

  private static Path picture(Path folder, String name) throws Exception {
    var image =
        new java.awt.image.BufferedImage(640, 400, java.awt.image.BufferedImage.TYPE_INT_RGB);
    Path to = folder.resolve(name);
    javax.imageio.ImageIO.write(image, "png", to.toFile());
    return to;
  }

  @Test
  void picturesAndGuidanceGoOutWithTheForm() throws Exception {
    Path folder = temporary();
    Page desk = form("coordinator");
    desk.click("#as-about");
    desk.setInputFiles(
        "#pictures",
        new Path[] {
          picture(folder, "Kind.png"),
          picture(folder, "kind-weir.png"),
          picture(folder, "sheep.png")
        });
    assertThat(desk.locator("#pictures-told li")).hasCount(3);
    assertThat(desk.locator("#pictures-told"))
        .containsText("sheep.png: no question or code is called so");
    desk.click("#add-text");
    desk.fill("#guidance textarea", "Stand well back from the sill.");
    desk.press("#guidance textarea", "Tab");
    stored(desk);
    desk.fill("#a-photoPixels", "800");
    desk.press("#a-photoPixels", "Tab");
    stored(desk);
    desk.click("#as-about");
    assertThat(desk.locator("#live-sheet [data-question=kind] img.reference")).hasCount(2);
    desk.click("#publish");
    desk.click("#publish-now");
    assertThat(desk.locator(".done")).containsText("Edition 1 is published");
    desk.click("text=Plan a round");
    desk.waitForSelector("#round-planner[data-ready]");
    desk.fill("#found", "OS-1021");
    desk.locator("[data-offer]").first().click();
    desk.fill("#name", "With pictures");
    desk.click("text=Make the round with");
    assertThat(desk.locator(".done")).containsText("The round is ready");
    Page day = stage.dayBook(temporary(), -10.29, 57.8835);
    Locator card =
        day.locator("[data-round]", new Page.LocatorOptions().setHasText("With pictures"));
    card.locator("text=Take this round offline").click();
    assertThat(day.locator(".done")).containsText("You can go offline");
    day.context().setOffline(true);
    day.locator("[data-round]", new Page.LocatorOptions().setHasText("With pictures"))
        .locator("text=Go to the stops")
        .click();
    day.locator(".stop").first().click();
    assertThat(day.locator("[data-question=kind] img.reference")).hasCount(2);
    int width =
        ((Number)
                day.locator("[data-question=kind] img.reference")
                    .first()
                    .evaluate("i => i.decode().then(() => i.naturalWidth)"))
            .intValue();
    org.assertj.core.api.Assertions.assertThat(width).isEqualTo(640);
    day.click("#guidance > summary");
    day.click("#guidance li summary");
    assertThat(day.locator("#guidance")).containsText("Stand well back");
    org.assertj.core.api.Assertions.assertThat(stage.scriptErrors()).isEmpty();
  }
}
