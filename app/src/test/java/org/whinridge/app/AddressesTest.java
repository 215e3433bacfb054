package org.whinridge.app;

import static org.assertj.core.api.Assertions.assertThat;
import static org.springframework.security.test.web.servlet.request.SecurityMockMvcRequestPostProcessors.csrf;
import static org.springframework.security.test.web.servlet.request.SecurityMockMvcRequestPostProcessors.user;
import static org.springframework.test.web.servlet.request.MockMvcRequestBuilders.get;
import static org.springframework.test.web.servlet.request.MockMvcRequestBuilders.multipart;
import static org.springframework.test.web.servlet.request.MockMvcRequestBuilders.post;
import static org.springframework.test.web.servlet.request.MockMvcRequestBuilders.request;

import com.eclipsesource.json.Json;
import com.eclipsesource.json.JsonArray;
import com.eclipsesource.json.JsonObject;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Base64;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.TreeSet;
import java.util.UUID;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Test;
import org.springframework.beans.factory.annotation.Autowired;
import org.springframework.beans.factory.annotation.Qualifier;
import org.springframework.http.HttpMethod;
import org.springframework.jdbc.core.JdbcTemplate;
import org.springframework.mock.web.MockHttpServletResponse;
import org.springframework.mock.web.MockMultipartFile;
import org.springframework.test.web.servlet.MockMvc;
import org.springframework.test.web.servlet.MvcResult;
import org.springframework.web.bind.annotation.RequestMethod;
import org.springframework.web.servlet.mvc.method.annotation.RequestMappingHandlerMapping;
import org.whinridge.app.map.Basemaps;
import org.whinridge.app.shell.Needs;
import org.whinridge.app.shell.OpenTo;
import org.whinridge.app.shell.Sha256;
import org.whinridge.core.access.Right;
import org.whinridge.core.access.Role;
import org.whinridge.core.text.Word;
import org.whinridge.demo.Relief;

/**
 * Every address of the running application, called as nobody, as each role, as a member of another
 * project and with ids of another project; held to the table beside this class. An address that the
 * table does not name fails.
 */
class AddressesTest extends SmallServerTest {
  private static final Path TABLE = Path.of("src/test/java/org/whinridge/app/addresses.tsv");

  /** An address, and the id of the right that it needs, or whom it answers without one. */
  private record Address(String method, String path, String needs) {
    Optional<Right> right() {
      return Word.of(Right.values(), needs);
    }

    boolean inProject() {
      return path.contains("{project}");
    }

    @Override
    public String toString() {
      return method + "\t" + path + "\t" + needs;
    }
  }

  @Autowired MockMvc mvc;
  @Autowired JdbcTemplate jdbc;
  @Autowired SmallProject small;
  @Autowired Basemaps basemaps;

  @Autowired
  @Qualifier("requestMappingHandlerMapping")
  RequestMappingHandlerMapping mapping;

  private static final String PHOTO = UUID.randomUUID().toString();
  private static SmallProject.Held other;
  private static final Map<String, String> foreign = new LinkedHashMap<>();

  private static List<Address> table() throws IOException {
    List<Address> out = new ArrayList<>();
    for (String line : Files.readAllLines(TABLE)) {
      if (line.isBlank() || line.startsWith("#")) continue;
      String[] cells = line.split("\t");
      out.add(new Address(cells[0], cells[1], cells[2]));
    }
    return out;
  }

  private List<String> ofTheApplication() {
    TreeSet<String> out = new TreeSet<>();
    mapping
        .getHandlerMethods()
        .forEach(
            (info, m) -> {
              if (!m.getBeanType().getName().startsWith("org.whinridge")) return;
              Needs needs = m.getMethodAnnotation(Needs.class);
              OpenTo open = m.getMethodAnnotation(OpenTo.class);
              String who =
                  needs != null
                      ? needs.value().id()
                      : open == null
                          ? "nobody"
                          : open.value().name().toLowerCase(Locale.ROOT).replace('_', ' ');
              for (String path : info.getPatternValues())
                for (RequestMethod method : info.getMethodsCondition().getMethods())
                  out.add(new Address(method.name(), path, who).toString());
            });
    return List.copyOf(out);
  }

  @Test
  void theTableNamesEveryAddressAndWhatItNeeds() throws Exception {
    assertThat(ofTheApplication())
        .isEqualTo(table().stream().map(Address::toString).sorted().toList());
  }

  private static final Pattern VARIABLE = Pattern.compile("([\\w-]+)/\\{(\\w+)}");

  /** The address with an id for each variable: of what is named before it, or one of nothing. */
  private static String filled(String path, String project, Map<String, String> ids) {
    StringBuilder out = new StringBuilder();
    Matcher m = VARIABLE.matcher(path.replace("{project}", project));
    while (m.find()) {
      String usual =
          switch (m.group(2)) {
            case "part", "name", "language", "format", "field" -> m.group(2);
            case "z", "x", "y" -> "0";
            default -> NOTHING;
          };
      m.appendReplacement(out, m.group(1) + "/" + ids.getOrDefault(m.group(1), usual));
    }
    return m.appendTail(out).toString().replaceAll("\\{[zxy]}", "0").replaceAll("\\{\\w+}", "x");
  }

  private static final String NOTHING = "00000000-0000-4000-8000-000000000000";

  /** One of the addresses closes the project: for those after it, it is open again. */
  private MvcResult call(Address a, String path, String person) throws Exception {
    try {
      return asked(a, path, person);
    } finally {
      if (path.endsWith("/close")) jdbc.update("update project set closed_at = null");
    }
  }

  private MvcResult asked(Address a, String path, String person) throws Exception {
    var q =
        request(HttpMethod.valueOf(a.method()), path)
            .accept(path.startsWith("/api/") ? "*/*" : "text/html, */*")
            .with(csrf());
    if (a.method().equals("POST") && path.startsWith("/api/"))
      q = q.contentType("application/json").content("{}");
    return mvc.perform(person.isEmpty() ? q : q.with(user(person))).andReturn();
  }

  private int status(Address a, String path, String person) throws Exception {
    return call(a, path, person).getResponse().getStatus();
  }

  @Test
  void nobodyIsAskedToSignIn() throws Exception {
    List<String> faults = new ArrayList<>();
    for (Address a : table()) {
      if (a.needs().equals("everybody")) continue;
      String path = filled(a.path(), "ostrey", Map.of());
      MockHttpServletResponse r = call(a, path, "").getResponse();
      boolean asked =
          path.startsWith("/api/")
              ? r.getStatus() == 401
              : r.getStatus() == 302 && String.valueOf(r.getRedirectedUrl()).endsWith("/sign-in");
      if (!asked) faults.add(a + " answers nobody with " + r.getStatus());
    }
    assertThat(faults).isEmpty();
  }

  @Test
  void eachRoleReachesWhatItMay() throws Exception {
    List<String> faults = new ArrayList<>();
    for (Address a : table()) {
      String path = filled(a.path(), "ostrey", Map.of());
      if (a.needs().equals("keeper") && status(a, path, "coordinator") != 403)
        faults.add(a + " answers a coordinator who is no keeper");
      if (a.right().isEmpty()) continue;
      for (Role role : Role.values()) {
        int status = status(a, path, role == Role.INSPECTOR ? "inspector1" : role.id());
        boolean may = a.right().get().isOf(java.util.Set.of(role));
        if (may == (status == 403) || status == 401 || status >= 500)
          faults.add(a + " answers a " + role.id() + " with " + status);
      }
    }
    assertThat(faults).isEmpty();
  }

  @BeforeAll
  static void anew() {
    other = null; // each class has a server of its own
  }

  private void another() throws Exception {
    if (other != null) return;
    other =
        small.make(
            "other",
            "Other",
            Map.of(Role.COORDINATOR, "stranger", Role.INSPECTOR, "stranger-outside"));
    foreign.put("layers", other.layer().toString());
    foreign.put("features", other.feature().toString());
    foreign.put("forms", other.form().toString());
    foreign.put("rounds", other.round().toString());
    foreign.put("hand-ins", visit());
    foreign.put(
        "set-aside",
        jdbc.queryForObject("select id from set_aside fetch first row only", String.class));
    foreign.put(
        "history",
        jdbc.queryForObject(
            "select id from ledger_entry where layer_id = ? fetch first row only",
            String.class,
            other.layer()));
    foreign.put("acts", foreign.get("history"));
    foreign.put("bring-in", broughtIn());
    foreign.put("photos", PHOTO);
    foreign.put("basemaps", basemap());
    foreign.put("devices", device());
    foreign.put("invitations", invitation());
    foreign.put("basemap-uploads", upload("/api/p/other/basemap-uploads"));
    foreign.put("carried-uploads", upload("/api/p/other/carried-uploads"));
    foreign.put("uploads", upload("/api/p/other/bring-in/uploads"));
    foreign.put("carried", foreign.get("carried-uploads"));
  }

  private String basemap() throws Exception {
    UUID id = UUID.randomUUID();
    Path relief = Files.createTempDirectory("relief").resolve("relief.mbtiles");
    Relief.write(relief);
    basemaps.add(other.project().id(), id, "Relief", relief, "stranger");
    return id.toString();
  }

  /** A paired device of the other project's inspector. */
  private String device() {
    UUID id = UUID.randomUUID();
    jdbc.update(
        "insert into device (id, account, own_id, name, paired_at, paired_by) values (?, 'stranger-outside', 'd', 'their phone', current_timestamp, 'code')",
        id);
    return id.toString();
  }

  private String invitation() throws Exception {
    mvc.perform(
        post("/p/other/people/invite")
            .param("names", "Somebody Else")
            .param("role", "reader")
            .with(user("stranger"))
            .with(csrf()));
    return jdbc.queryForObject(
        "select id from invitation where project_id = ? fetch first row only",
        String.class,
        other.project().id());
  }

  private static String base64(String s) {
    return Base64.getEncoder().encodeToString(s.getBytes(StandardCharsets.UTF_8));
  }

  /** An upload that the other project's coordinator has begun. */
  private String upload(String home) throws Exception {
    String place =
        mvc.perform(
                post(home)
                    .header("Tus-Resumable", "1.0.0")
                    .header("Upload-Length", "10")
                    .header("Upload-Metadata", "lot " + base64(foreign.get("bring-in")))
                    .with(user("stranger"))
                    .with(csrf()))
            .andReturn()
            .getResponse()
            .getHeader("Location");
    assertThat(place).as(home).isNotNull();
    return place.replaceAll(".*/", "");
  }

  /** A visit of the other project's first stop and, in the same hand-in, what is no visit. */
  private String visit() throws Exception {
    JsonObject feature =
        Json.parse(
                mvc.perform(
                        get("/api/day/rounds/" + other.round() + "/parts/features-" + other.layer())
                            .with(user("stranger-outside")))
                    .andReturn()
                    .getResponse()
                    .getContentAsString(StandardCharsets.UTF_8))
            .asObject()
            .get("features")
            .asArray()
            .get(0)
            .asObject();
    JsonObject visit =
        SmallVisit.of(feature, other.round(), "stranger-outside")
            .set("set", new JsonObject())
            .set(
                "photos",
                new JsonArray()
                    .add(
                        new JsonObject()
                            .add("id", PHOTO)
                            .add("question", "photo")
                            .add("sha256", Sha256.of(new byte[] {1}))
                            .add("bytes", 1)));
    String id = visit.getString("id", "");
    JsonObject broken =
        new JsonObject()
            .add("id", UUID.randomUUID().toString())
            .add("round", other.round().toString());
    MockHttpServletResponse r =
        mvc.perform(
                post("/api/day/hand-ins")
                    .contentType("application/json")
                    .content(
                        new JsonObject()
                            .add("id", UUID.randomUUID().toString())
                            .add("device", "phone")
                            .add("visits", new JsonArray().add(visit).add(broken))
                            .toString())
                    .with(user("stranger-outside"))
                    .with(csrf()))
            .andReturn()
            .getResponse();
    assertThat(r.getStatus()).as(r.getContentAsString()).isEqualTo(200);
    assertThat(
            jdbc.queryForObject(
                "select count(*) from visit where id = ?", Integer.class, UUID.fromString(id)))
        .as(r.getContentAsString())
        .isEqualTo(1);
    return id;
  }

  private String broughtIn() throws Exception {
    String to =
        mvc.perform(
                multipart("/p/other/layers/bring-in")
                    .file(
                        new MockMultipartFile(
                            "file",
                            "gates.csv",
                            "text/csv",
                            "tag,x,y\nA,-10.2,57.9\n".getBytes(StandardCharsets.UTF_8)))
                    .with(user("stranger"))
                    .with(csrf()))
            .andReturn()
            .getResponse()
            .getRedirectedUrl();
    return String.valueOf(to).replaceAll(".*/", "");
  }

  /** To others than its members a project is one that there is not. */
  @Test
  void aProjectIsNotThereForOthers() throws Exception {
    another();
    List<String> faults = new ArrayList<>();
    for (Address a : table()) {
      if (!a.inProject()) continue;
      String path = filled(a.path(), "other", foreign);
      String nowhere = filled(a.path(), "nowhere", foreign);
      for (String person : List.of("coordinator", "reader", "inspector1")) {
        MockHttpServletResponse r = call(a, path, person).getResponse();
        MockHttpServletResponse none = call(a, nowhere, person).getResponse();
        if (r.getStatus() != 404 || !said(r).equals(said(none)))
          faults.add(a + " tells a " + person + " of another project: " + r.getStatus());
      }
    }
    assertThat(faults).isEmpty();
  }

  /** What is answered, without what is new each time. */
  private static String said(MockHttpServletResponse r) throws Exception {
    return ids(
        r.getContentAsString(StandardCharsets.UTF_8)
            .replaceAll("name=\"(_csrf|csrf-token)\"[^>]*>", "")
            .replaceAll("Request [0-9a-f]{8}:", ""));
  }

  private static String ids(String text) {
    return text.replaceAll("[0-9a-f]{8}(-[0-9a-f]{4}){3}-[0-9a-f]{12}", "");
  }

  private static String answer(MvcResult r) throws Exception {
    return r.getResponse().getStatus()
        + " "
        + ids(r.getResponse().getRedirectedUrl() + " " + r.getFlashMap())
        + " "
        + said(r.getResponse());
  }

  /** An id of another project is answered as one that there is not, and does nothing. */
  @Test
  void foreignIdsAreUnknownOnes() throws Exception {
    another();
    String before = store();
    List<String> faults = new ArrayList<>();
    for (Address a : table()) {
      String own = filled(a.path(), "ostrey", foreign);
      String none = filled(a.path(), "ostrey", Map.of());
      if (a.right().isEmpty() || own.equals(none)) continue;
      String person = a.right().get() == Right.GO_OUT ? "inspector1" : "coordinator";
      String theirs = answer(call(a, own, person));
      String nothing = answer(call(a, none, person));
      if (!theirs.equals(nothing))
        faults.add(own + " answers " + theirs + " where nothing is: " + nothing);
    }
    assertThat(faults).isEmpty();
    assertThat(store()).isEqualTo(before);
  }

  /** What the other project holds, in short. */
  private String store() {
    return jdbc.queryForList(
                "select revision, feature_count from layer where id = ?", other.layer())
            .toString()
        + jdbc.queryForList(
            "select state from visit where id = ?", UUID.fromString(foreign.get("hand-ins")))
        + jdbc.queryForList("select revision from form where id = ?", other.form())
        + jdbc.queryForList("select fate from set_aside")
        + jdbc.queryForList("select name, revoked_at, asked_at from device")
        + jdbc.queryForList("select used_at from invitation")
        + jdbc.queryForList("select count(*) from basemap")
        + jdbc.queryForList("select received_at from visit_photo");
  }

  /** Of what looks after the server itself only its health is told, and that to everybody. */
  @Test
  void theInsidesOfTheServerAreNobodys() throws Exception {
    for (String path :
        List.of(
            "", "/env", "/beans", "/metrics", "/heapdump", "/loggers", "/mappings", "/sessions"))
      for (String person : List.of("coordinator", "reader", "inspector1"))
        assertThat(
                mvc.perform(get("/actuator" + path).with(user(person)))
                    .andReturn()
                    .getResponse()
                    .getStatus())
            .as("/actuator" + path + " for " + person)
            .isIn(403, 404);
    assertThat(mvc.perform(get("/actuator/env")).andReturn().getResponse().getStatus())
        .isIn(302, 401, 403, 404);
    assertThat(mvc.perform(get("/actuator/health")).andReturn().getResponse().getContentAsString())
        .doesNotContain("path", "exists", "database");
  }
}
