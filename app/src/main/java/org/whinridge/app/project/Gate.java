package org.whinridge.app.project;

import jakarta.servlet.DispatcherType;
import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import java.security.Principal;
import java.util.List;
import java.util.Map;
import java.util.function.Supplier;
import org.springframework.context.annotation.Configuration;
import org.springframework.core.Ordered;
import org.springframework.web.method.HandlerMethod;
import org.springframework.web.servlet.HandlerInterceptor;
import org.springframework.web.servlet.HandlerMapping;
import org.springframework.web.servlet.config.annotation.InterceptorRegistry;
import org.springframework.web.servlet.config.annotation.WebMvcConfigurer;
import org.whinridge.app.people.People;
import org.whinridge.app.shell.Needs;
import org.whinridge.app.shell.OpenTo;
import org.whinridge.app.shell.Refusal;
import org.whinridge.core.access.Right;

/**
 * Stands in the way of every request, and lets through whoever has the right that the address
 * {@link Needs}. To others than its members a project is one that is not there.
 */
@Configuration(proxyBeanMethods = false)
class Gate implements WebMvcConfigurer, HandlerInterceptor {
  /** Under this name pages and controllers find the {@link Rights} in the address's project. */
  private static final String RIGHTS = "rights";

  /** Under this name pages find the person's other projects. */
  private static final String MINE = "mine";

  /** A person's projects, found when a page asks. */
  public record Mine(Supplier<List<Project>> all, String here) {
    /** Those that the page is not about. */
    public List<Project> others() {
      return all.get().stream().filter(p -> !p.key().equals(here)).toList();
    }
  }

  private final Members members;
  private final Projects projects;
  private final People people;

  Gate(Members members, Projects projects, People people) {
    this.projects = projects;
    this.people = people;
    this.members = members;
  }

  @Override
  public void addInterceptors(InterceptorRegistry registry) {
    registry.addInterceptor(this).order(Ordered.HIGHEST_PRECEDENCE);
  }

  @Override
  public boolean preHandle(HttpServletRequest q, HttpServletResponse r, Object handler) {
    if (q.getDispatcherType() == DispatcherType.REQUEST
        && handler instanceof HandlerMethod m
        && !m.getBeanType().getName().startsWith("org.springframework.")) ask(q, m);
    return true;
  }

  private void ask(HttpServletRequest q, HandlerMethod m) {
    OpenTo open = m.getMethodAnnotation(OpenTo.class);
    if (open != null && open.value() == OpenTo.Whom.EVERYBODY) return;
    Principal person = q.getUserPrincipal();
    if (person == null) throw Refusal.forbidden("refused.mayNot");
    if (open != null) {
      if (open.value() == OpenTo.Whom.KEEPER && !people.isKeeper(person.getName()))
        throw Refusal.forbidden("refused.mayNot");
      return;
    }
    Needs needs = m.getMethodAnnotation(Needs.class);
    if (needs == null) throw Refusal.forbidden("refused.mayNot");
    if (project(q) instanceof String key) {
      q.setAttribute(RIGHTS, inProject(person.getName(), key, needs.value()));
      q.setAttribute(MINE, new Mine(() -> projects.of(person.getName()), key));
    } else if (members.projectsOf(person.getName(), needs.value()).isEmpty())
      throw Refusal.forbidden("refused.mayNot");
  }

  private Rights inProject(String person, String key, Right right) {
    Rights rights = members.rights(person, key);
    if (!rights.any()) throw Refusal.notFound("thing.project");
    if (!rights.has(right)) throw Refusal.forbidden("refused.mayNot");
    if (!rights.may(right)) throw Refusal.forbidden("refused.projectClosed");
    return rights;
  }

  private static Object project(HttpServletRequest q) {
    return q.getAttribute(HandlerMapping.URI_TEMPLATE_VARIABLES_ATTRIBUTE) instanceof Map<?, ?> v
        ? v.get("project")
        : null;
  }
}
