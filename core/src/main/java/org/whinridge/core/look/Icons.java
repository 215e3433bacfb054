package org.whinridge.core.look;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.whinridge.core.said.Said;

/** The icons that every look may use, drawn for this product in a box of 24. */
public final class Icons {
  private static final Map<String, Icon> ALL = new LinkedHashMap<>();

  static {
    solid("disc", "M12 3A9 9 0 1 1 12 21A9 9 0 1 1 12 3Z");
    solid("square", "M4 4H20V20H4Z");
    solid("diamond", "M12 2L22 12L12 22L2 12Z");
    solid("triangle", "M12 3L22 20H2Z");
    solid("hexagon", "M7 3.5H17L22 12L17 20.5H7L2 12Z");
    solid("plus", "M9 3H15V9H21V15H15V21H9V15H3V9H9Z");
    solid("bar", "M2 9.5H22V14.5H2Z");
    solid(
        "ring",
        "M12 2A10 10 0 1 1 12 22A10 10 0 1 1 12 2ZM12 7.5A4.5 4.5 0 1 0 12 16.5A4.5 4.5 0 1 0 12 7.5Z");
    solid("half", "M3 12A9 9 0 0 1 21 12Z");
    solid("arrow", "M12 1.5L20 12H15V22.5H9V12H4Z");
    solid("wedge", "M12 1.5L20 22L12 17.5L4 22Z");
    solid("pennant", "M7 2L20 7.5L9 13V22H7Z");
    solid("drop", "M12 2C15 7 19 10.5 19 15A7 7 0 0 1 5 15C5 10.5 9 7 12 2Z");
    solid("post", "M9.5 3L12 1L14.5 3V23H9.5Z");
    // what stands in water: each looks up the drain, so that it can be turned by a bearing
    parts(
        "outfall",
        fill("M4 22V12A8 8 0 0 1 20 12V22H15.5V12A3.5 3.5 0 0 0 8.5 12V22Z"),
        line("M12 1V7M9 4L12 1L15 4", 2));
    parts("flap", fill("M3 3H21V8H3Z"), fill("M5 10H19L16 21H8Z"));
    parts("gate", fill("M2 2H6V22H2ZM18 2H22V22H18ZM7 2H17V5H7Z"), fill("M8 9H16V20H8Z"));
    parts("screw", fill("M7 2H17V5H7Z"), line("M12 5V13", 2.6), fill("M4 13H20V22H4Z"));
    parts(
        "weir",
        fill("M2 8H8L12 13L16 8H22V14H2Z"),
        line("M3 18.5C6 16.5 8 20.5 12 18.5S18 16.5 21 18.5", 2));
    parts(
        "pump",
        fill("M12 4A8 8 0 1 1 12 20A8 8 0 1 1 12 4ZM12 8A4 4 0 1 0 12 16A4 4 0 1 0 12 8Z"),
        fill("M10 1H22V6H15L12 4Z"));
    parts("culvert", fill("M2 5H22V10H2Z"), line("M7 12V21M17 12V21", 3));
    parts("tree", fill("M12 1L19 10H16L21 18H3L8 10H5Z"), fill("M10.5 18H13.5V23H10.5Z"));
    parts("house", fill("M12 2L22 11H19V21H5V11H2Z"));
    parts("stile", line("M4 4V21M20 4V21M4 8.5H20M4 15H20", 2.6));
  }

  private Icons() {}

  private static Icon.Part fill(String path) {
    return new Icon.Part(path, Icon.OF_SYMBOL, Icon.NONE, 0);
  }

  private static Icon.Part line(String path, double width) {
    return new Icon.Part(path, Icon.NONE, Icon.OF_SYMBOL, width);
  }

  private static void solid(String id, String path) {
    parts(id, fill(path));
  }

  private static void parts(String id, Icon.Part... parts) {
    ALL.put(id, new Icon("", 24, List.of(parts)));
  }

  /** The ids, in the order of showing. */
  public static List<String> ids() {
    return new ArrayList<>(ALL.keySet());
  }

  /** What an icon is called. */
  public static Said said(String id) {
    return Said.of("icon." + id);
  }

  /** The icon with that id. */
  public static Optional<Icon> of(String id) {
    return Optional.ofNullable(ALL.get(id));
  }
}
