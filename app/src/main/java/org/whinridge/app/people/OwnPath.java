package org.whinridge.app.people;

import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import java.util.regex.Pattern;
import org.springframework.security.web.authentication.SavedRequestAwareAuthenticationSuccessHandler;

/** Where people may be led after signing in: a page of this application, never elsewhere. */
final class OwnPath extends SavedRequestAwareAuthenticationSuccessHandler {
  /** The parameter with the wanted page. */
  static final String PARAMETER = "next";

  private static final Pattern OWN = Pattern.compile("/(?!/)[A-Za-z0-9_\\-/?=&.#]*");

  OwnPath() {
    setTargetUrlParameter(PARAMETER);
    setDefaultTargetUrl("/");
  }

  static boolean isOne(String path) {
    return path != null && OWN.matcher(path).matches() && !path.contains("//");
  }

  @Override
  protected String determineTargetUrl(HttpServletRequest q, HttpServletResponse r) {
    String wanted = q.getParameter(PARAMETER);
    return isOne(wanted) ? wanted : getDefaultTargetUrl();
  }
}
