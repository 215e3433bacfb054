package org.whinridge.app.overview;

import java.time.Duration;
import java.time.Instant;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.UUID;
import org.springframework.stereotype.Controller;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.RequestAttribute;
import org.whinridge.app.form.Forms;
import org.whinridge.app.layer.Layer;
import org.whinridge.app.layer.Layers;
import org.whinridge.app.layer.LedgerEntry;
import org.whinridge.app.own.Device;
import org.whinridge.app.own.Devices;
import org.whinridge.app.project.DeskPage;
import org.whinridge.app.project.Members;
import org.whinridge.app.project.Project;
import org.whinridge.app.project.Rights;
import org.whinridge.app.shell.Needs;
import org.whinridge.core.access.DeviceState;
import org.whinridge.core.access.Right;

/** A project at a glance: what needs someone now, how far the work is, what was done last. */
@Controller
class DeskController {
  /** From so long without contact on a device is told. */
  private static final Duration SILENT = Duration.ofDays(7);

  private static final int ACTS = 8;

  private final DeskPage desk;
  private final Figures figures;
  private final Forms forms;
  private final Layers layers;
  private final Devices devices;
  private final Members members;

  DeskController(
      DeskPage desk,
      Figures figures,
      Forms forms,
      Layers layers,
      Devices devices,
      Members members) {
    this.desk = desk;
    this.figures = figures;
    this.forms = forms;
    this.layers = layers;
    this.devices = devices;
    this.members = members;
  }

  /**
   * Something that needs someone.
   *
   * @param key of its text, with the argument n
   * @param href its list
   */
  record Need(String key, long n, String href) {}

  /** An act, and the layer on which it was done. */
  record Act(Layer layer, LedgerEntry entry) {}

  @Needs(Right.SEE_REGISTER)
  @GetMapping("/p/{project}/desk")
  String page(@PathVariable String project, @RequestAttribute Rights rights, Model model) {
    Project p = desk.open(project, "", model);
    LocalDate today = LocalDate.now(p.zone());
    Figures.Held held = figures.held(List.of(p.id())).get(p.id());
    List<Figures.Progress> rounds = figures.rounds(p.id());
    model.addAttribute("held", held);
    model.addAttribute("needs", needs(p, held, rounds, today, rights));
    model.addAttribute("rounds", rounds);
    model.addAttribute("today", today);
    List<Figures.Week> weeks = figures.weeks(p, today);
    model.addAttribute("weeks", weeks);
    model.addAttribute("mostAWeek", weeks.stream().mapToLong(Figures.Week::visits).max().orElse(0));
    model.addAttribute("acts", acts(p.id()));
    return "desk";
  }

  private List<Need> needs(
      Project p, Figures.Held held, List<Figures.Progress> rounds, LocalDate today, Rights rights) {
    String home = "/p/" + p.key() + "/";
    List<Need> out = new ArrayList<>();
    if (rights.may(Right.SEE_WORK)) {
      out.add(new Need("page.desk.clashes", held.clashes(), home + "hand-ins"));
      out.add(new Need("page.desk.waiting", held.waiting() - held.clashes(), home + "hand-ins"));
      long late = rounds.stream().filter(r -> r.isLate(today)).count();
      out.add(new Need("page.desk.late", late, home + "rounds"));
    }
    if (rights.may(Right.REVIEW))
      out.add(
          new Need("page.desk.setAside", figures.setAside(p.id()), home + "hand-ins/set-aside"));
    if (rights.may(Right.BUILD_FORMS)) {
      long broken = forms.list(p.id()).stream().filter(f -> !forms.problems(f).isEmpty()).count();
      out.add(new Need("page.desk.forms", broken, home + "forms"));
    }
    if (rights.may(Right.MANAGE)) {
      List<Device> all = devices.in(p.id(), members.outdoors(p.id()));
      Instant since = Instant.now().minus(SILENT);
      long silent =
          all.stream()
              .filter(d -> d.state() == DeviceState.PAIRED)
              .filter(d -> d.contactAt().orElse(d.pairedAt()).isBefore(since))
              .count();
      out.add(new Need("page.desk.silent", silent, home + "devices"));
      out.add(
          new Need(
              "page.desk.clocks",
              all.stream().filter(Device::clockIsOff).count(),
              home + "devices"));
    }
    return out.stream().filter(n -> n.n() > 0).toList();
  }

  private List<Act> acts(UUID project) {
    List<Act> out = new ArrayList<>();
    for (Layer l : layers.list(project))
      layers.history(l, ACTS).forEach(e -> out.add(new Act(l, e)));
    out.sort(Comparator.comparing((Act a) -> a.entry().at()).reversed());
    return out.stream().limit(ACTS).toList();
  }
}
