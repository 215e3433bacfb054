package org.whinridge.core.text;

/**
 * Letters with their accents as single characters, as Unicode's normal form C has them: "e" and a
 * combining acute are "é". So that two texts which look alike are alike, whatever wrote them; the
 * platform's own normalizer does not exist on every engine. Source: Unicode Standard Annex #15,
 * with the pairs of UnicodeData for the marks U+0300 to U+036F and the two Japanese ones, and
 * Hangul by its rule; marks of other scripts stay as they are.
 */
public final class Composed {
  /** For each mark: letter and composed letter, letter and composed letter, and so on. */
  private static final String[] MARKS = {
    "\u0300AÀEÈIÌOÒUÙaàeèiìoòuùÜǛüǜNǸnǹЕЀИЍеѐиѝĒḔēḕŌṐōṑWẀwẁÂẦâầĂẰăằÊỀêềÔỒôồƠỜơờƯỪưừYỲyỳἀἂἁἃἈἊἉἋἐἒἑἓἘἚἙἛἠἢἡἣἨἪἩἫἰἲἱἳἸἺἹἻὀὂὁὃὈὊὉὋὐὒὑὓὙὛὠὢὡὣὨὪὩὫαὰεὲηὴιὶοὸυὺωὼΑᾺΕῈΗῊ᾿῍ϊῒΙῚ῾῝ϋῢΥῪ¨῭ΟῸΩῺ",
    "\u0301AÁEÉIÍOÓUÚYÝaáeéiíoóuúyýCĆcćLĹlĺNŃnńRŔrŕSŚsśZŹzźÜǗüǘGǴgǵÅǺåǻÆǼæǽØǾøǿ¨΅ΑΆΕΈΗΉΙΊΟΌΥΎΩΏϊΐαάεέηήιίϋΰοόυύωώϒϓГЃКЌгѓкќÇḈçḉĒḖēḗÏḮïḯKḰkḱMḾmḿÕṌõṍŌṒōṓPṔpṕŨṸũṹWẂwẃÂẤâấĂẮăắÊẾêếÔỐôốƠỚơớƯỨưứἀἄἁἅἈἌἉἍἐἔἑἕἘἜἙἝἠἤἡἥἨἬἩἭἰἴἱἵἸἼἹἽὀὄὁὅὈὌὉὍὐὔὑὕὙὝὠὤὡὥὨὬὩὭ᾿῎῾῞",
    "\u0302AÂEÊIÎOÔUÛaâeêiîoôuûCĈcĉGĜgĝHĤhĥJĴjĵSŜsŝWŴwŵYŶyŷZẐzẑẠẬạậẸỆẹệỌỘọộ",
    "\u0303AÃNÑOÕaãnñoõIĨiĩUŨuũVṼvṽÂẪâẫĂẴăẵEẼeẽÊỄêễÔỖôỗƠỠơỡƯỮưữYỸyỹ",
    "\u0304AĀaāEĒeēIĪiīOŌoōUŪuūÜǕüǖÄǞäǟȦǠȧǡÆǢæǣǪǬǫǭÖȪöȫÕȬõȭȮȰȯȱYȲyȳИӢиӣУӮуӯGḠgḡḶḸḷḹṚṜṛṝαᾱΑᾹιῑΙῙυῡΥῩ",
    "\u0306AĂaăEĔeĕGĞgğIĬiĭOŎoŏUŬuŭУЎИЙийуўЖӁжӂАӐаӑЕӖеӗȨḜȩḝẠẶạặαᾰΑᾸιῐΙῘυῠΥῨ",
    "\u0307CĊcċEĖeėGĠgġIİZŻzżAȦaȧOȮoȯBḂbḃDḊdḋFḞfḟHḢhḣMṀmṁNṄnṅPṖpṗRṘrṙSṠsṡŚṤśṥŠṦšṧṢṨṣṩTṪtṫWẆwẇXẊxẋYẎyẏſẛ",
    "\u0308AÄEËIÏOÖUÜaäeëiïoöuüyÿYŸΙΪΥΫιϊυϋϒϔЕЁІЇеёіїАӒаӓӘӚәӛЖӜжӝЗӞзӟИӤиӥОӦоӧӨӪөӫЭӬэӭУӰуӱЧӴчӵЫӸыӹHḦhḧÕṎõṏŪṺūṻWẄwẅXẌxẍtẗ",
    "\u0309AẢaảÂẨâẩĂẲăẳEẺeẻÊỂêểIỈiỉOỎoỏÔỔôổƠỞơởUỦuủƯỬưửYỶyỷ",
    "\u030aAÅaåUŮuůwẘyẙ",
    "\u030bOŐoőUŰuűУӲуӳ",
    "\u030cCČcčDĎdďEĚeěLĽlľNŇnňRŘrřSŠsšTŤtťZŽzžAǍaǎIǏiǐOǑoǒUǓuǔÜǙüǚGǦgǧKǨkǩƷǮʒǯjǰHȞhȟ",
    "\u030fAȀaȁEȄeȅIȈiȉOȌoȍRȐrȑUȔuȕѴѶѵѷ",
    "\u0311AȂaȃEȆeȇIȊiȋOȎoȏRȒrȓUȖuȗ",
    "\u0313αἀΑἈεἐΕἘηἠΗἨιἰΙἸοὀΟὈυὐωὠΩὨρῤ",
    "\u0314αἁΑἉεἑΕἙηἡΗἩιἱΙἹοὁΟὉυὑΥὙωὡΩὩρῥΡῬ",
    "\u031bOƠoơUƯuư",
    "\u0323BḄbḅDḌdḍHḤhḥKḲkḳLḶlḷMṂmṃNṆnṇRṚrṛSṢsṣTṬtṭVṾvṿWẈwẉZẒzẓAẠaạEẸeẹIỊiịOỌoọƠỢơợUỤuụƯỰưựYỴyỵ",
    "\u0324UṲuṳ",
    "\u0325AḀaḁ",
    "\u0326SȘsșTȚtț",
    "\u0327CÇcçGĢgģKĶkķLĻlļNŅnņRŖrŗSŞsşTŢtţEȨeȩDḐdḑHḨhḩ",
    "\u0328AĄaąEĘeęIĮiįUŲuųOǪoǫ",
    "\u032dDḒdḓEḘeḙLḼlḽNṊnṋTṰtṱUṶuṷ",
    "\u032eHḪhḫ",
    "\u0330EḚeḛIḬiḭUṴuṵ",
    "\u0331BḆbḇDḎdḏKḴkḵLḺlḻNṈnṉRṞrṟTṮtṯZẔzẕhẖ",
    "\u0338←↚→↛↔↮⇐⇍⇔⇎⇒⇏∃∄∈∉∋∌∣∤∥∦∼≁≃≄≅≇≈≉=≠≡≢≍≭<≮>≯≤≰≥≱≲≴≳≵≶≸≷≹≺⊀≻⊁⊂⊄⊃⊅⊆⊈⊇⊉⊢⊬⊨⊭⊩⊮⊫⊯≼⋠≽⋡⊑⋢⊒⋣⊲⋪⊳⋫⊴⋬⊵⋭",
    "\u0342ἀἆἁἇἈἎἉἏἠἦἡἧἨἮἩἯἰἶἱἷἸἾἹἿὐὖὑὗὙὟὠὦὡὧὨὮὩὯαᾶ¨῁ηῆ᾿῏ιῖϊῗ῾῟υῦϋῧωῶ",
    "\u0345ἀᾀἁᾁἂᾂἃᾃἄᾄἅᾅἆᾆἇᾇἈᾈἉᾉἊᾊἋᾋἌᾌἍᾍἎᾎἏᾏἠᾐἡᾑἢᾒἣᾓἤᾔἥᾕἦᾖἧᾗἨᾘἩᾙἪᾚἫᾛἬᾜἭᾝἮᾞἯᾟὠᾠὡᾡὢᾢὣᾣὤᾤὥᾥὦᾦὧᾧὨᾨὩᾩὪᾪὫᾫὬᾬὭᾭὮᾮὯᾯὰᾲαᾳάᾴᾶᾷΑᾼὴῂηῃήῄῆῇΗῌὼῲωῳώῴῶῷΩῼ",
    "\u3099かがきぎくぐけげこごさざしじすずせぜそぞただちぢつづてでとどはばひびふぶへべほぼうゔゝゞカガキギクグケゲコゴサザシジスズセゼソゾタダチヂツヅテデトドハバヒビフブヘベホボウヴワヷヰヸヱヹヲヺヽヾ",
    "\u309aはぱひぴふぷへぺほぽハパヒピフプヘペホポ"
  };

  private Composed() {}

  /** The text with what can be composed composed; the same object when nothing can. */
  public static String of(String s) {
    int i = 0;
    while (i < s.length() && !joins(s.charAt(i))) i++;
    if (i == s.length()) return s;
    StringBuilder b = new StringBuilder(s.length());
    for (i = 0; i < s.length(); i++) {
      char c = s.charAt(i);
      int last = b.length() - 1;
      char whole = last < 0 || !joins(c) ? 0 : pair(b.charAt(last), c);
      if (whole == 0) b.append(c);
      else b.setCharAt(last, whole);
    }
    return b.toString();
  }

  private static boolean joins(char c) {
    return c >= 0x300 && c <= 0x36F || c == 0x3099 || c == 0x309A || c >= 0x1161 && c <= 0x11C2;
  }

  /** Two characters as one; 0 when they are none. */
  private static char pair(char first, char mark) {
    if (mark >= 0x1161 && mark <= 0x11C2) return hangul(first, mark);
    for (String m : MARKS) {
      if (m.charAt(0) != mark) continue;
      for (int i = 1; i < m.length(); i += 2) if (m.charAt(i) == first) return m.charAt(i + 1);
    }
    return 0;
  }

  private static char hangul(char first, char mark) {
    if (first >= 0x1100 && first <= 0x1112 && mark <= 0x1175)
      return (char) (0xAC00 + ((first - 0x1100) * 21 + mark - 0x1161) * 28);
    boolean open = first >= 0xAC00 && first <= 0xD7A3 && (first - 0xAC00) % 28 == 0;
    return open && mark >= 0x11A8 ? (char) (first + mark - 0x11A7) : 0;
  }
}
