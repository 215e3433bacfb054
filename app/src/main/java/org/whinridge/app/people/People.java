package org.whinridge.app.people;

import java.security.SecureRandom;
import java.util.Base64;
import java.util.List;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.boot.ApplicationArguments;
import org.springframework.boot.ApplicationRunner;
import org.springframework.core.annotation.Order;
import org.springframework.core.env.Environment;
import org.springframework.core.env.Profiles;
import org.springframework.security.core.userdetails.User;
import org.springframework.security.core.userdetails.UserDetails;
import org.springframework.security.core.userdetails.UserDetailsService;
import org.springframework.security.core.userdetails.UsernameNotFoundException;
import org.springframework.security.crypto.password.PasswordEncoder;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/** Accounts. What somebody may do stands in the projects. */
@Service
@Order(1)
public class People implements UserDetailsService, ApplicationRunner {
  /** The demo's accounts, named after their role; their password is {@link #DEMO_PASSWORD}. */
  public static final List<String> DEMO_ACCOUNTS =
      List.of("coordinator", "reviewer", "inspector1", "inspector2", "reader");

  /** The password of the demo's accounts; no other account has a preset one. */
  public static final String DEMO_PASSWORD = "ostrey";

  private static final Logger LOG = LoggerFactory.getLogger(People.class);
  private final AccountRepository accounts;
  private final PasswordEncoder encoder;
  private final boolean demo;

  People(AccountRepository accounts, PasswordEncoder encoder, Environment environment) {
    this.accounts = accounts;
    this.encoder = encoder;
    this.demo = environment.acceptsProfiles(Profiles.of("demo"));
  }

  /**
   * Makes the first accounts of an empty store: the demo's, or one coordinator with a password that
   * is told once.
   */
  @Override
  @Transactional
  public void run(ApplicationArguments args) {
    if (accounts.count() > 0) return;
    if (demo) {
      String hash = encoder.encode(DEMO_PASSWORD);
      for (String name : DEMO_ACCOUNTS) accounts.save(new AccountEntity(name, hash, false));
      return;
    }
    byte[] random = new byte[12];
    new SecureRandom().nextBytes(random);
    String password = Base64.getUrlEncoder().withoutPadding().encodeToString(random);
    accounts.save(new AccountEntity("coordinator", encoder.encode(password), true));
    LOG.warn("first start: account coordinator, password {} (told only this once)", password);
    System.out.println(
        "First start. Account: coordinator   Password, told only this once: " + password);
  }

  @Override
  public UserDetails loadUserByUsername(String name) {
    AccountEntity a =
        accounts.findById(name).orElseThrow(() -> new UsernameNotFoundException(name));
    return User.withUsername(a.name).password(a.passwordHash).authorities(List.of()).build();
  }

  /** Whether the demo's accounts may be offered by a button. */
  public boolean isDemo() {
    return demo;
  }
}
