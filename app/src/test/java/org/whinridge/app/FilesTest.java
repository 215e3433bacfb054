package org.whinridge.app;

import static org.springframework.security.test.web.servlet.request.SecurityMockMvcRequestPostProcessors.csrf;
import static org.springframework.security.test.web.servlet.request.SecurityMockMvcRequestPostProcessors.user;
import static org.springframework.test.web.servlet.request.MockMvcRequestBuilders.get;
import static org.springframework.test.web.servlet.request.MockMvcRequestBuilders.multipart;
import static org.springframework.test.web.servlet.request.MockMvcRequestBuilders.post;

import com.eclipsesource.json.Json;
import com.eclipsesource.json.JsonObject;
import java.nio.charset.StandardCharsets;
import java.util.Map;
import java.util.stream.Collectors;
import org.springframework.beans.factory.annotation.Autowired;
import org.springframework.mock.web.MockHttpServletResponse;
import org.springframework.mock.web.MockMultipartFile;
import org.springframework.security.test.web.servlet.request.SecurityMockMvcRequestPostProcessors.UserRequestPostProcessor;
import org.springframework.test.web.servlet.MockMvc;
import org.whinridge.app.daybook.Visits;
import org.whinridge.app.layer.Layer;
import org.whinridge.app.layer.Layers;
import org.whinridge.app.photo.Photos;
import org.whinridge.app.project.Projects;
import org.whinridge.app.shell.DataFolder;
import org.whinridge.core.layer.Feature;

/** Brings files in by the pages and addresses that people use. */
abstract class FilesTest extends SmallServerTest {
  static final String PAGE = "/p/ostrey/layers/bring-in";
  static final UserRequestPostProcessor COORDINATOR = user("coordinator");
  @Autowired MockMvc mvc;
  @Autowired Layers layers;
  @Autowired Projects projects;
  @Autowired DataFolder data;
  @Autowired Visits visits;
  @Autowired Photos photos;

  static MockMultipartFile file(String name, byte[] content) {
    return new MockMultipartFile("file", name, "application/octet-stream", content);
  }

  /** Uploads; gives the page of the lot once it was looked through. */
  String upload(MockMultipartFile... files) throws Exception {
    var request = multipart(PAGE);
    for (MockMultipartFile f : files) request.file(f);
    String page =
        mvc.perform(request.with(COORDINATOR).with(csrf()))
            .andReturn()
            .getResponse()
            .getRedirectedUrl();
    waitFor(page);
    return page;
  }

  String upload(String name, String content) throws Exception {
    return upload(file(name, content.getBytes(StandardCharsets.UTF_8)));
  }

  String waitFor(String page) throws Exception {
    String api = page.replace("/p/ostrey/layers/bring-in", "/api/p/ostrey/bring-in") + "/state";
    for (int i = 0; i < 600; i++) {
      JsonObject o =
          Json.parse(
                  mvc.perform(get(api).with(COORDINATOR))
                      .andReturn()
                      .getResponse()
                      .getContentAsString(StandardCharsets.UTF_8))
              .asObject();
      if (!o.getString("stage", "").equals("running")) return o.getString("stage", "");
      Thread.sleep(50);
    }
    throw new AssertionError("the job does not end");
  }

  String html(String page) throws Exception {
    MockHttpServletResponse r = mvc.perform(get(page).with(COORDINATOR)).andReturn().getResponse();
    return r.getContentAsString(StandardCharsets.UTF_8)
        .replace("&#39;", "'")
        .replace("&quot;", "\"");
  }

  /** Decides by the API; gives the problem, or "" once the import has ended. */
  String decide(String page, String... nameAndValue) throws Exception {
    var request =
        post(page.replace("/p/ostrey/layers/bring-in", "/api/p/ostrey/bring-in") + "/decide")
            .accept("application/json");
    for (int i = 0; i < nameAndValue.length; i += 2)
      request.param(nameAndValue[i], nameAndValue[i + 1]);
    MockHttpServletResponse r =
        mvc.perform(request.with(COORDINATOR).with(csrf())).andReturn().getResponse();
    if (r.getStatus() != 200)
      return Json.parse(r.getContentAsString(StandardCharsets.UTF_8))
          .asObject()
          .getString("message", "");
    waitFor(page);
    return "";
  }

  void act(String page, String act) throws Exception {
    mvc.perform(post(page + "/" + act).with(COORDINATOR).with(csrf()));
    if (!act.equals("take-back") && !act.equals("drop")) waitFor(page);
  }

  Layer layer(String name) {
    return layers.list(projects.byKey("ostrey").id()).stream()
        .filter(l -> l.name().equals(name))
        .findFirst()
        .orElseThrow();
  }

  Map<String, Feature> byKey(Layer layer, String field) {
    return layers.first(layer, 1000).stream()
        .collect(Collectors.toMap(f -> f.value(field).plain(), f -> f));
  }
}
