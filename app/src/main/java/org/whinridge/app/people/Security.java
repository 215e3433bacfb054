package org.whinridge.app.people;

import jakarta.servlet.DispatcherType;
import org.springframework.context.annotation.Bean;
import org.springframework.context.annotation.Configuration;
import org.springframework.security.config.annotation.web.builders.HttpSecurity;
import org.springframework.security.crypto.bcrypt.BCryptPasswordEncoder;
import org.springframework.security.crypto.password.PasswordEncoder;
import org.springframework.security.web.AuthenticationEntryPoint;
import org.springframework.security.web.SecurityFilterChain;
import org.springframework.security.web.authentication.LoginUrlAuthenticationEntryPoint;
import org.springframework.security.web.authentication.UsernamePasswordAuthenticationFilter;
import org.springframework.security.web.csrf.CsrfFilter;
import org.springframework.security.web.csrf.CsrfToken;
import org.whinridge.app.shell.ReadersChoice;
import org.whinridge.app.shell.ToldAsJson;
import org.whinridge.core.said.Said;

/**
 * Who is asking: sign-in, sessions, headers. What they may do decides the gate of the projects, for
 * each address by the right that it needs.
 */
@Configuration
class Security {
  private static final String POLICY =
      "default-src 'self'; img-src 'self' blob: data:; object-src 'none'; base-uri 'none'; form-action 'self'; frame-ancestors 'none'";

  @Bean
  PasswordEncoder passwordEncoder() {
    return new BCryptPasswordEncoder();
  }

  @Bean
  SecurityFilterChain chain(
      HttpSecurity http, ToldAsJson told, SignInWaits waits, Accounts accounts) throws Exception {
    var next = new OwnPath();
    var toSignIn = new LoginUrlAuthenticationEntryPoint("/sign-in");
    AuthenticationEntryPoint ask =
        (q, r, x) -> {
          if (!q.getRequestURI().startsWith("/api/")) toSignIn.commence(q, r, x);
          else told.send(q, r, 401, Said.of("refused.signedOut"));
        };
    http.authorizeHttpRequests(
            a ->
                a.dispatcherTypeMatchers(DispatcherType.ERROR, DispatcherType.FORWARD)
                    .permitAll()
                    .requestMatchers(
                        "/sign-in",
                        "/first",
                        "/join",
                        "/forgotten",
                        "/new-password",
                        "/confirm-email",
                        "/api/password-strength",
                        "/assets/**",
                        "/messages/**",
                        "/sw.js",
                        "/manifest.webmanifest",
                        "/icon.svg",
                        "/icon-192.png",
                        "/icon-512.png",
                        "/icon-whole-180.png",
                        "/icon-whole-512.png",
                        "/actuator/health/**",
                        "/trust",
                        "/trust/whinridge.crt",
                        "/day",
                        "/error")
                    .permitAll()
                    .anyRequest()
                    .authenticated())
        .formLogin(
            f ->
                f.loginPage("/sign-in")
                    .loginProcessingUrl("/sign-in")
                    .successHandler(
                        (q, r, who) -> {
                          waits.succeeded(who.getName(), q.getRemoteAddr());
                          // made now: of two first pages at once each would make an own one, and
                          // the page whose token is not the one that is kept could send nothing
                          if (q.getAttribute(CsrfToken.class.getName()) instanceof CsrfToken t)
                            t.getToken();
                          Account a = accounts.get(who.getName());
                          ReadersChoice.keep(q.getSession(), a.zone(), a.style(), a.singleKeys());
                          next.onAuthenticationSuccess(q, r, who);
                        })
                    .failureUrl("/sign-in?wrong")
                    .permitAll())
        .addFilterBefore(
            new AskFirst(
                (q, r, x) -> {
                  // a page that was open for longer than its session
                  if (!q.getRequestURI().startsWith("/api/")) r.sendRedirect("/sign-in?old");
                  else ask.commence(q, r, x);
                }),
            CsrfFilter.class)
        .addFilterBefore(new SignInGuard(waits), UsernamePasswordAuthenticationFilter.class)
        .logout(l -> l.logoutUrl("/sign-out").logoutSuccessUrl("/sign-in?out"))
        .headers(h -> h.contentSecurityPolicy(c -> c.policyDirectives(POLICY)))
        .exceptionHandling(
            e ->
                e.authenticationEntryPoint(ask)
                    .accessDeniedHandler(
                        (q, r, x) -> {
                          boolean csrf =
                              x instanceof org.springframework.security.web.csrf.CsrfException;
                          if (q.getRequestURI().startsWith("/api/"))
                            told.send(
                                q, r, 403, Said.of(csrf ? "refused.oldPage" : "refused.mayNot"));
                          else if (csrf) r.sendRedirect("/sign-in?old");
                          else r.sendError(403);
                        }));
    return http.build();
  }
}
