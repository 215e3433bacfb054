package org.whinridge.app;

import static org.assertj.core.api.Assertions.assertThat;
import static org.springframework.security.test.web.servlet.request.SecurityMockMvcRequestPostProcessors.csrf;
import static org.springframework.security.test.web.servlet.request.SecurityMockMvcRequestPostProcessors.user;
import static org.springframework.test.web.servlet.request.MockMvcRequestBuilders.get;
import static org.springframework.test.web.servlet.request.MockMvcRequestBuilders.multipart;
import static org.springframework.test.web.servlet.request.MockMvcRequestBuilders.post;

import com.eclipsesource.json.Json;
import com.eclipsesource.json.JsonObject;
import java.nio.charset.StandardCharsets;
import java.util.Map;
import java.util.UUID;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.springframework.beans.factory.annotation.Autowired;
import org.springframework.mock.web.MockHttpServletResponse;
import org.springframework.mock.web.MockMultipartFile;
import org.springframework.test.web.servlet.MockMvc;
import org.whinridge.app.form.Drafting;
import org.whinridge.app.form.FormDraft;
import org.whinridge.app.form.Forms;
import org.whinridge.core.access.Role;
import org.whinridge.core.form.Form;

/** Forms begun from all that they can be begun from, taken out, and their editions. */
class FormFilesTest extends SmallServerTest {
  private static int next;
  @Autowired MockMvc mvc;
  @Autowired SmallProject small;
  @Autowired Forms forms;
  @Autowired Drafting drafting;
  private SmallProject.Held held;
  private String who;
  private String home;

  @BeforeEach
  void aProjectOfItsOwn() throws Exception {
    int n = ++next;
    who = "builder-" + n;
    held =
        small.make(
            "forms-" + n, "Forms " + n, Map.of(Role.COORDINATOR, who, Role.INSPECTOR, "o-" + n));
    home = "/p/" + held.project().key() + "/forms";
  }

  private FormDraft at(MockHttpServletResponse r) {
    assertThat(r.getRedirectedUrl()).matches(home + "/[0-9a-f-]{36}");
    return forms.get(
        held.project().id(), UUID.fromString(r.getRedirectedUrl().replaceAll(".*/", "")));
  }

  private MockHttpServletResponse begin(String... parameters) throws Exception {
    var q = post(home).param("layer", held.layer().toString());
    for (int i = 0; i < parameters.length; i += 2) q.param(parameters[i], parameters[i + 1]);
    return mvc.perform(q.with(user(who)).with(csrf())).andReturn().getResponse();
  }

  private MockHttpServletResponse bring(byte[] file) throws Exception {
    return mvc.perform(
            multipart(home + "/from-file")
                .file(new MockMultipartFile("file", "a form", "", file))
                .param("layer", held.layer().toString())
                .with(user(who))
                .with(csrf()))
        .andReturn()
        .getResponse();
  }

  private byte[] taken(UUID form, String as) throws Exception {
    MockHttpServletResponse r =
        mvc.perform(get(home + "/" + form + "/" + as).with(user(who))).andReturn().getResponse();
    assertThat(r.getStatus()).isEqualTo(200);
    return r.getContentAsByteArray();
  }

  @Test
  void formsAreBegunInEachWay() throws Exception {
    assertThat(at(begin()).form().questions()).hasSizeGreaterThan(5);
    assertThat(at(begin("start", "NOTHING")).form().questions()).isEmpty();
    assertThat(at(begin("start", "CAPTION")).form().questions()).isNotEmpty().hasSizeLessThan(4);
    for (String t : new String[] {"condition", "defects", "site", "count", "sign", "tree"}) {
      FormDraft made = at(begin("start", "TEMPLATE", "template", t));
      assertThat(forms.problems(made)).as(t).isEmpty();
      assertThat(made.form().questions()).as(t).hasSizeGreaterThan(3);
    }
    assertThat(at(begin("start", "COPY", "copy", held.form().toString())).form())
        .isEqualTo(forms.get(held.project().id(), held.form()).form());
    assertThat(begin("start", "TEMPLATE", "template", "moon").getStatus()).isEqualTo(404);
    assertThat(begin("start", "COPY", "copy", UUID.randomUUID().toString()).getStatus())
        .isEqualTo(404);
  }

  @Test
  void aFormGoesOutAndComesBackAsItWas() throws Exception {
    Form form = forms.get(held.project().id(), held.form()).form();
    assertThat(at(bring(taken(held.form(), "file"))).form()).isEqualTo(form);
    Form back = at(bring(taken(held.form(), "workbook"))).form();
    assertThat(back.questions().stream().map(q -> q.name() + q.type()))
        .isEqualTo(form.questions().stream().map(q -> q.name() + q.type()).toList());
  }

  @Test
  void whatIsNoFormIsRefused() throws Exception {
    long before = forms.count(held.project().id());
    byte[][] poor = {
      new byte[0],
      "hello".getBytes(StandardCharsets.UTF_8),
      "{\"sections\":7}".getBytes(StandardCharsets.UTF_8),
      "[[[[".repeat(5000).getBytes(StandardCharsets.UTF_8),
      "PK not a workbook".getBytes(StandardCharsets.UTF_8),
      {(byte) 0xff, (byte) 0xfe, 0, 1},
    };
    for (byte[] p : poor)
      assertThat(bring(p).getRedirectedUrl())
          .as(new String(p, 0, Math.min(20, p.length), StandardCharsets.ISO_8859_1))
          .contains("/forms/new?layer=");
    assertThat(forms.count(held.project().id())).isEqualTo(before);
  }

  @Test
  void anEditionThatIsNotThereIsNotCompared() throws Exception {
    assertThat(
            mvc.perform(get(home + "/" + held.form() + "/editions?from=9").with(user(who)))
                .andReturn()
                .getResponse()
                .getStatus())
        .isEqualTo(404);
  }

  @Test
  void editionsAreComparedAndCopiedBack() throws Exception {
    UUID id = held.form();
    FormDraft draft = forms.get(held.project().id(), id);
    JsonObject edit =
        Json.parse("{\"op\":\"type\",\"text\":\"Width of the gap (mm) *\",\"section\":0}")
            .asObject();
    drafting.edit(held.project().id(), id, draft.revision(), edit, who);
    String page =
        mvc.perform(get(home + "/" + id + "/editions").with(user(who)))
            .andReturn()
            .getResponse()
            .getContentAsString();
    assertThat(page).contains("new: Width of the gap", "is new and needed", "Publish edition 2");
    MockHttpServletResponse copied =
        mvc.perform(
                post(home + "/" + id + "/editions/copy")
                    .param("number", "1")
                    .with(user(who))
                    .with(csrf()))
            .andReturn()
            .getResponse();
    assertThat(at(copied).form()).isEqualTo(draft.form());
    drafting.undo(held.project().id(), id, who);
    assertThat(forms.get(held.project().id(), id).form().question("width_of_the_gap")).isPresent();
  }
}
