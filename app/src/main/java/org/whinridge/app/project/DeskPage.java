package org.whinridge.app.project;

import org.springframework.stereotype.Component;
import org.springframework.ui.Model;
import org.whinridge.app.shell.Frame;

/** Opens a desk page: finds the project of the address and puts the frame into the model. */
@Component
public class DeskPage {
  private final Projects projects;
  private final Frame frame;

  DeskPage(Projects projects, Frame frame) {
    this.projects = projects;
    this.frame = frame;
  }

  /** The project; the model then has project and path. */
  public Project open(String key, String station, Model model) {
    Project p = projects.byKey(key);
    model.addAttribute("project", p);
    model.addAttribute("path", frame.path(p.id(), p.key(), station));
    return p;
  }
}
