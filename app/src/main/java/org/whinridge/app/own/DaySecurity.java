package org.whinridge.app.own;

import org.springframework.context.annotation.Bean;
import org.springframework.context.annotation.Configuration;
import org.springframework.core.annotation.Order;
import org.springframework.security.config.annotation.web.builders.HttpSecurity;
import org.springframework.security.config.annotation.web.configurers.AbstractHttpConfigurer;
import org.springframework.security.config.http.SessionCreationPolicy;
import org.springframework.security.web.SecurityFilterChain;
import org.springframework.security.web.authentication.UsernamePasswordAuthenticationFilter;
import org.whinridge.app.shell.Crowd;
import org.whinridge.app.shell.ToldAsJson;
import org.whinridge.core.said.Said;

/**
 * The addresses of devices: a token in a header of each request and nothing else lets in, so that a
 * session in the same browser neither helps nor does harm.
 */
@Configuration(proxyBeanMethods = false)
class DaySecurity {
  @Bean
  @Order(1)
  SecurityFilterChain dayChain(HttpSecurity http, Devices devices, ToldAsJson told)
      throws Exception {
    http.securityMatcher("/api/day/**")
        .csrf(AbstractHttpConfigurer::disable)
        .sessionManagement(s -> s.sessionCreationPolicy(SessionCreationPolicy.STATELESS))
        .requestCache(AbstractHttpConfigurer::disable)
        .logout(AbstractHttpConfigurer::disable)
        .authorizeHttpRequests(
            a -> a.requestMatchers("/api/day/pair").permitAll().anyRequest().authenticated())
        .addFilterBefore(
            new DeviceFilter(devices, told), UsernamePasswordAuthenticationFilter.class)
        .exceptionHandling(
            e ->
                e.authenticationEntryPoint(
                        (q, r, x) -> {
                          Crowd.dontRead(q);
                          told.send(q, r, 401, Said.of("refused.signedOut"));
                        })
                    .accessDeniedHandler(
                        (q, r, x) -> told.send(q, r, 403, Said.of("refused.mayNot"))));
    return http.build();
  }
}
