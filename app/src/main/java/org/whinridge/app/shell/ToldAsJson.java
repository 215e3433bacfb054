package org.whinridge.app.shell;

import com.eclipsesource.json.JsonObject;
import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import java.io.IOException;
import org.springframework.stereotype.Component;
import org.whinridge.core.said.Said;

/** The answer {message} of what stands before the pages: filters, and who may do what. */
@Component
public class ToldAsJson {
  private final Catalogue catalogue;

  ToldAsJson(Catalogue catalogue) {
    this.catalogue = catalogue;
  }

  /** Sends it in the words of whoever asked. */
  public void send(HttpServletRequest q, HttpServletResponse r, int status, Said said)
      throws IOException {
    r.setStatus(status);
    r.setContentType("application/json;charset=UTF-8");
    r.getWriter()
        .write(new JsonObject().add("message", catalogue.say(q.getLocale(), said)).toString());
  }
}
