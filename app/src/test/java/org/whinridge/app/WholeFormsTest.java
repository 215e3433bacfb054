package org.whinridge.app;

import static org.assertj.core.api.Assertions.assertThat;
import static org.springframework.security.test.web.servlet.request.SecurityMockMvcRequestPostProcessors.csrf;
import static org.springframework.security.test.web.servlet.request.SecurityMockMvcRequestPostProcessors.user;
import static org.springframework.test.web.servlet.request.MockMvcRequestBuilders.get;
import static org.springframework.test.web.servlet.request.MockMvcRequestBuilders.multipart;
import static org.springframework.test.web.servlet.request.MockMvcRequestBuilders.post;

import com.eclipsesource.json.Json;
import com.eclipsesource.json.JsonObject;
import com.eclipsesource.json.JsonValue;
import java.awt.image.BufferedImage;
import java.io.ByteArrayInputStream;
import java.io.ByteArrayOutputStream;
import java.nio.charset.StandardCharsets;
import java.util.Map;
import java.util.UUID;
import javax.imageio.ImageIO;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.springframework.beans.factory.annotation.Autowired;
import org.springframework.jdbc.core.JdbcTemplate;
import org.springframework.mock.web.MockHttpServletResponse;
import org.springframework.mock.web.MockMultipartFile;
import org.springframework.test.web.servlet.MockMvc;
import org.whinridge.app.form.Drafting;
import org.whinridge.app.form.FormDraft;
import org.whinridge.app.form.Forms;
import org.whinridge.app.layer.Layer;
import org.whinridge.app.layer.Layers;
import org.whinridge.core.access.Role;
import org.whinridge.core.layer.Field;
import org.whinridge.core.place.GeometryKind;

/** What is done with a form as a whole: its layer, its files, publishing, retiring, templates. */
class WholeFormsTest extends SmallServerTest {
  private static int next;
  @Autowired MockMvc mvc;
  @Autowired SmallProject small;
  @Autowired Forms forms;
  @Autowired Drafting drafting;
  @Autowired Layers layers;
  @Autowired JdbcTemplate jdbc;
  private SmallProject.Held held;
  private String who;
  private String home;

  @BeforeEach
  void aProjectOfItsOwn() throws Exception {
    int n = ++next;
    who = "whole-" + n;
    held =
        small.make(
            "whole-" + n, "Whole " + n, Map.of(Role.COORDINATOR, who, Role.INSPECTOR, "w-" + n));
    home = "/p/" + held.project().key() + "/forms";
  }

  private UUID project() {
    return held.project().id();
  }

  private MockHttpServletResponse send(String address, String... parameters) throws Exception {
    var q = post(address);
    for (int i = 0; i < parameters.length; i += 2) q.param(parameters[i], parameters[i + 1]);
    return mvc.perform(q.with(user(who)).with(csrf())).andReturn().getResponse();
  }

  private String page(String address) throws Exception {
    MockHttpServletResponse r = mvc.perform(get(address).with(user(who))).andReturn().getResponse();
    assertThat(r.getStatus()).isEqualTo(200);
    return r.getContentAsString(StandardCharsets.UTF_8);
  }

  private FormDraft edit(UUID form, String edit) {
    return drafting.edit(
        project(),
        form,
        forms.get(project(), form).revision(),
        Json.parse(edit.replace('\'', '"')).asObject(),
        who);
  }

  private FormDraft form(UUID form) {
    return forms.get(project(), form);
  }

  private static UUID id(MockHttpServletResponse r) {
    return UUID.fromString(r.getRedirectedUrl().replaceAll(".*/", ""));
  }

  @Test
  void aFormIsWrittenFirstAndMakesItsLayerAfter() throws Exception {
    UUID form = id(send(home, "layer", "", "start", "NOTHING"));
    assertThat(form(form).layer()).isEmpty();
    assertThat(send(home, "layer", "", "start", "FIELDS").getStatus()).isEqualTo(422);
    edit(
        form,
        "{'op':'type','section':0,'text':'Where {spot}: point\\nTag {tag}: tag *\\nLining {lining}: brick | clay\\nPhoto {photo} x1..3'}");
    String shown = page(home + "/" + form + "/layer");
    assertThat(shown).contains("A layer of points", "Lining", "Make the layer", "Photo");
    assertThat(page(home + "/" + form + "/editions")).contains("no layer yet");
    send(home + "/" + form + "/publish");
    assertThat(form(form).edition()).isZero();
    String seen = String.valueOf(form(form).revision());
    edit(form, "{'op':'type','section':0,'text':'Silt (mm) {silt} 0..500'}");
    assertThat(
            send(home + "/" + form + "/layer", "name", "Posts", "revision", seen)
                .getRedirectedUrl())
        .as("another draft was shown")
        .endsWith("/layer");
    seen = String.valueOf(form(form).revision());
    send(home + "/" + form + "/layer", "name", "Posts", "revision", seen);
    Layer made = layers.byId(form(form).layerId());
    assertThat(made.name()).isEqualTo("Posts");
    assertThat(made.schema().kind()).isEqualTo(GeometryKind.POINT);
    assertThat(made.schema().fields())
        .extracting(Field::name)
        .containsExactly("tag", "lining", "silt");
    assertThat(form(form).form().question("spot")).isEmpty();
    assertThat(form(form).form().question("lining").orElseThrow().writesTo()).isEqualTo("lining");
    send(home + "/" + form + "/publish");
    assertThat(form(form).edition()).isEqualTo(1);
    assertThat(
            send(home + "/" + form + "/layer", "name", "Again", "revision", "1").getRedirectedUrl())
        .endsWith("/layer");
    UUID table = id(send(home, "layer", "", "start", "TEMPLATE", "template", "count"));
    send(
        home + "/" + table + "/layer",
        "name",
        "Counts",
        "revision",
        String.valueOf(form(table).revision()));
    assertThat(layers.byId(form(table).layerId()).schema().kind()).isEqualTo(GeometryKind.TABLE);
  }

  @Test
  void publishingGivesTheLayerTheFieldsThatWereTicked() throws Exception {
    edit(
        held.form(),
        "{'op':'type','section':0,'text':'Lining {lining}: brick | clay\\nKind {kind}: tide_flap | sluice\\nAside {aside}'}");
    assertThat(form(held.form()).form().question("kind").orElseThrow().writesTo())
        .as("a field of that name is there")
        .isEqualTo("kind");
    assertThat(page(home + "/" + held.form() + "/editions"))
        .contains("Fields for the layer", "Aside");
    send(home + "/" + held.form() + "/publish", "field", "lining", "field", "no_question");
    assertThat(form(held.form()).edition()).isEqualTo(2);
    assertThat(layers.byId(held.layer()).schema().field("lining")).isPresent();
    assertThat(layers.byId(held.layer()).schema().field("aside")).isEmpty();
    assertThat(
            forms
                .edition(held.form(), 2)
                .orElseThrow()
                .form()
                .question("lining")
                .orElseThrow()
                .writesTo())
        .isEqualTo("lining");
  }

  @Test
  void aSoundDraftThatNobodyTouchesIsPublishedByItself() {
    edit(held.form(), "{'op':'settings','setting':'publishAfterMinutes','value':30}");
    edit(held.form(), "{'op':'set','question':'notes','property':'hint','value':'what else'}");
    forms.publishDue(held.form());
    assertThat(form(held.form()).edition()).as("not before its time").isEqualTo(1);
    past(held.form());
    forms.publishDue(held.form());
    assertThat(form(held.form()).edition()).isEqualTo(2);
    past(held.form());
    forms.publishDue(held.form());
    assertThat(form(held.form()).edition()).as("nothing has changed").isEqualTo(2);
    edit(held.form(), "{'op':'set','question':'notes','property':'askWhen','value':'nothing > 1'}");
    past(held.form());
    forms.publishDue(held.form());
    assertThat(form(held.form()).edition()).as("it is not sound").isEqualTo(2);
  }

  private void past(UUID form) {
    jdbc.update(
        "update form set publishes_at = timestamp '2026-01-01 00:00:00Z' where id = ?", form);
  }

  @Test
  void aRetiredFormIsPlannedNoMoreAndATemplateBeginsOthers() throws Exception {
    send(home + "/" + held.form() + "/retire", "retired", "true");
    assertThat(form(held.form()).isInUse()).isFalse();
    assertThat(page(home)).contains("retired").doesNotContain("rounds/new");
    send(home + "/" + held.form() + "/retire", "retired", "false");
    assertThat(page(home)).contains("rounds/new");
    edit(held.form(), "{'op':'title','value':'Our own way'}");
    send(home + "/" + held.form() + "/template");
    String list = page(home);
    assertThat(list).contains("Our own way", "Asset condition");
    String template = list.replaceAll("(?s).*forms/new\\?template=([0-9a-f-]{36}).*", "$1");
    UUID other =
        id(send(home, "layer", held.layer().toString(), "start", "TEMPLATE", "template", template));
    assertThat(form(other).form().questions()).hasSameSizeAs(form(held.form()).form().questions());
    assertThat(form(other).form().question("condition").orElseThrow().writesTo())
        .isEqualTo("condition");
    send(home + "/templates/" + template + "/remove");
    assertThat(send(home, "layer", "", "start", "TEMPLATE", "template", template).getStatus())
        .isEqualTo(404);
  }

  private MockHttpServletResponse upload(String to, String name, byte[] content) throws Exception {
    return mvc.perform(
            multipart("/api/p/" + held.project().key() + to)
                .file(new MockMultipartFile("file", name, "", content))
                .with(user(who))
                .with(csrf()))
        .andReturn()
        .getResponse();
  }

  private static byte[] png(int width, int height) throws Exception {
    ByteArrayOutputStream out = new ByteArrayOutputStream();
    ImageIO.write(new BufferedImage(width, height, BufferedImage.TYPE_BYTE_BINARY), "png", out);
    return out.toByteArray();
  }

  @Test
  void picturesAreMadeSmallerAndWhatIsNoneIsToldSo() throws Exception {
    MockHttpServletResponse r = upload("/form-pictures", "lining.png", png(3000, 1500));
    assertThat(r.getStatus()).isEqualTo(200);
    String id = Json.parse(r.getContentAsString()).asObject().getString("id", "");
    byte[] kept =
        mvc.perform(get("/p/" + held.project().key() + "/form-files/" + id).with(user(who)))
            .andReturn()
            .getResponse()
            .getContentAsByteArray();
    BufferedImage shrunk = ImageIO.read(new ByteArrayInputStream(kept));
    assertThat(shrunk.getWidth()).isEqualTo(1600);
    assertThat(shrunk.getHeight()).isEqualTo(800);
    assertThat(upload("/form-pictures", "huge.png", png(20_000, 10_000)).getStatus())
        .as("200 megapixels")
        .isEqualTo(200);
    MockHttpServletResponse none =
        upload("/form-pictures", "none.jpg", "no picture".getBytes(StandardCharsets.UTF_8));
    assertThat(none.getStatus()).isEqualTo(422);
    assertThat(none.getContentAsString(StandardCharsets.UTF_8))
        .contains("“none.jpg” is no picture");
    assertThat(upload("/form-documents", "run.html", new byte[10]).getStatus()).isEqualTo(422);
    assertThat(upload("/form-documents", "manual.pdf", new byte[10]).getStatus()).isEqualTo(200);
    assertThat(upload("/form-documents", "manual.pdf", new byte[20_000_001]).getStatus())
        .isEqualTo(413);
    // another project's people don't see it
    SmallProject.Held other =
        small.make(
            "whole-o-" + next,
            "Other",
            Map.of(Role.COORDINATOR, "oc-" + next, Role.INSPECTOR, "oi-" + next));
    assertThat(
            mvc.perform(
                    get("/p/" + other.project().key() + "/form-files/" + id)
                        .with(user("oc-" + next)))
                .andReturn()
                .getResponse()
                .getStatus())
        .isEqualTo(404);
    // a copy into that project takes its pictures along
    edit(held.form(), "{'op':'set','question':'notes','property':'picture','value':'" + id + "'}");
    assertThat(form(held.form()).form().files()).containsExactly(id);
  }

  @Test
  void aDraftOfANewerVersionStaysAsItIs() throws Exception {
    jdbc.update(
        "update form set draft = replace(draft, '\"title\"', '\"glow\":1,\"title\"') where id = ?",
        held.form());
    assertThat(page(home)).contains("forms/" + held.form());
    assertThat(page(home + "/" + held.form())).contains("newer version", "glow");
    String body =
        new JsonObject()
            .add("revision", form(held.form()).revision())
            .add("edit", new JsonObject().add("op", "title").add("value", "Other"))
            .toString();
    MockHttpServletResponse r =
        mvc.perform(
                post("/api/p/" + held.project().key() + "/forms/" + held.form() + "/edits")
                    .contentType("application/json")
                    .content(body)
                    .with(user(who))
                    .with(csrf()))
            .andReturn()
            .getResponse();
    assertThat(r.getStatus()).isEqualTo(409);
    assertThat(
            jdbc.queryForObject("select draft from form where id = ?", String.class, held.form()))
        .contains("\"glow\":1");
    jdbc.update("update form set draft = 'nonsense' where id = ?", held.form());
    assertThat(page(home)).contains("forms/" + held.form());
  }

  @Test
  void visitsAreAcceptedByThemselvesWhereTheFormSaysSo() throws Exception {
    edit(held.form(), "{'op':'settings','setting':'review','value':'itself'}");
    edit(held.form(), "{'op':'settings','setting':'expectedVisits','value':5}");
    send(home + "/" + held.form() + "/publish");
    assertThat(state(visitOf(2))).isEqualTo("accepted");
    assertThat(page(home)).contains("1 of 5");
    assertThat(layers.history(layers.byId(held.layer()), held.feature()).get(0).summary().key())
        .isEqualTo("ledger.visitAcceptedByItself");
    assertThat(state(visitOf(1)))
        .as("the edition that it was made with says nothing of it")
        .isEqualTo("waiting");
  }

  /** What a person decided stands, however often a device sends the visit again. */
  @Test
  void anAcceptanceThatAPersonTookBackIsNotGivenAgain() throws Exception {
    edit(held.form(), "{'op':'settings','setting':'review','value':'itself'}");
    send(home + "/" + held.form() + "/publish");
    JsonObject visit = visitOf(2);
    assertThat(state(visit)).isEqualTo("accepted");
    send("/p/" + held.project().key() + "/hand-ins/" + visit.getString("id", "") + "/take-back");
    assertThat(state(visit)).isEqualTo("waiting");
    assertThat(
            jdbc.queryForObject(
                "select state from visit where id = ?",
                String.class,
                UUID.fromString(visit.getString("id", ""))))
        .isEqualTo("waiting");
  }

  private String state(JsonObject visit) throws Exception {
    return handedIn(visit).asObject().getString("state", "");
  }

  private JsonObject visitOf(int edition) throws Exception {
    String inspector = "w-" + next;
    JsonObject pack =
        Json.parse(
                mvc.perform(
                        get("/api/day/rounds/"
                                + held.round()
                                + "/parts/features-"
                                + held.layer()
                                + "?hash=")
                            .with(user(inspector)))
                    .andReturn()
                    .getResponse()
                    .getContentAsString(StandardCharsets.UTF_8))
            .asObject();
    JsonObject feature = null;
    for (JsonValue f : pack.get("features").asArray())
      if (f.asObject().getString("id", "").equals(held.feature().toString()))
        feature = f.asObject();
    JsonObject visit = SmallVisit.of(feature, held.round(), inspector).set("edition", edition);
    visit.get("start").asObject().set("edition", edition);
    visit
        .get("state")
        .asObject()
        .get("answers")
        .asObject()
        .add("notes", new JsonObject().add("value", "seen").add("from", "typed"));
    return visit;
  }

  private JsonValue handedIn(JsonObject visit) throws Exception {
    JsonObject handIn =
        new JsonObject()
            .add("id", UUID.randomUUID().toString())
            .add("device", "phone")
            .add("visits", new com.eclipsesource.json.JsonArray().add(visit));
    MockHttpServletResponse r =
        mvc.perform(
                post("/api/day/hand-ins")
                    .contentType("application/json")
                    .content(handIn.toString())
                    .with(user("w-" + next))
                    .with(csrf()))
            .andReturn()
            .getResponse();
    assertThat(r.getStatus()).as(r.getContentAsString()).isEqualTo(200);
    return Json.parse(r.getContentAsString()).asObject().get("visits").asArray().get(0);
  }
}
