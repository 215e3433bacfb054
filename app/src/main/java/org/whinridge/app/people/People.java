package org.whinridge.app.people;

import java.util.List;
import org.springframework.beans.factory.ObjectProvider;
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
import org.whinridge.app.shell.Refusal;
import org.whinridge.core.access.AccountState;
import org.whinridge.core.access.Names;
import org.whinridge.core.access.NewPassword;

/** Accounts. What somebody may do stands in the projects. */
@Service
@Order(1)
public class People implements UserDetailsService, ApplicationRunner {
  /** The demo's accounts, named after their role; their password is {@link #DEMO_PASSWORD}. */
  public static final List<String> DEMO_ACCOUNTS =
      List.of("coordinator", "reviewer", "inspector1", "inspector2", "reader");

  /** The password of the demo's accounts; no other account has a preset one. */
  public static final String DEMO_PASSWORD = "ostrey";

  private final AccountRepository accounts;
  private final PasswordEncoder encoder;
  private final CommonPasswords common;
  private final boolean demo;
  private final Terms terms;
  private final ObjectProvider<Accounts> care;

  /**
   * What somebody new says.
   *
   * @param email "" for none, as with organisation
   * @param terms the version of the terms that they accept; 0 for none
   */
  public record Newcomer(
      String name, String password, String email, String organisation, int terms) {}

  People(
      AccountRepository accounts,
      PasswordEncoder encoder,
      CommonPasswords common,
      Terms terms,
      ObjectProvider<Accounts> care,
      Environment environment) {
    this.terms = terms;
    this.care = care;
    this.common = common;
    this.accounts = accounts;
    this.encoder = encoder;
    this.demo = environment.acceptsProfiles(Profiles.of("demo"));
  }

  /** Makes the demo's accounts in an empty store. */
  @Override
  @Transactional
  public void run(ApplicationArguments args) {
    if (accounts.count() > 0 || !demo) return;
    String hash = encoder.encode(DEMO_PASSWORD);
    for (String name : DEMO_ACCOUNTS) accounts.save(new AccountEntity(name, hash, false));
  }

  /** Whether there is nobody yet. */
  boolean nobody() {
    return accounts.count() == 0;
  }

  /**
   * Makes the first account of an installation, its keeper.
   *
   * @throws Refusal when the name or the password may not be so, or somebody is there already
   */
  @Transactional
  public void makeKeeper(String name, String password) {
    if (!nobody()) throw Refusal.conflict("refused.somebodyIsThere");
    save(new Newcomer(name, password, "", "", 0), true);
  }

  /**
   * Makes an account.
   *
   * @return its name as it is kept
   * @throws Refusal when the name or the password may not be so, or somebody has that name
   */
  @Transactional
  public String make(Newcomer somebody) {
    return save(somebody, false);
  }

  private String save(Newcomer somebody, boolean keeper) {
    String password = somebody.password();
    String name =
        Names.of(somebody.name())
            .orElseThrow(() -> Refusal.refused("refused.accountName", "most", Names.LONGEST));
    if (accounts.existsByNameIgnoreCase(name))
      throw Refusal.conflict("refused.nameTaken", "name", name);
    NewPassword.fault(password, name, common::has)
        .ifPresent(
            fault -> {
              throw Refusal.refused("refused.sentence", "why", fault);
            });
    accounts.saveAndFlush(new AccountEntity(name, encoder.encode(password), keeper));
    care.getObject().about(name, somebody.email(), somebody.organisation());
    if (!keeper) terms.accept(name, somebody.terms());
    return name;
  }

  /** Whether somebody looks after the installation. */
  @Transactional(readOnly = true)
  public boolean isKeeper(String name) {
    return accounts
        .findById(name)
        .filter(a -> a.keeper && a.state() == AccountState.ACTIVE)
        .isPresent();
  }

  @Override
  public UserDetails loadUserByUsername(String name) {
    // one that is not active takes as long, and is told, as one that there is not
    AccountEntity a =
        accounts
            .findById(name)
            .filter(x -> x.state() == AccountState.ACTIVE)
            .orElseThrow(() -> new UsernameNotFoundException(name));
    return User.withUsername(a.name).password(a.passwordHash).authorities(List.of()).build();
  }

  /** Whether the demo's accounts may be offered by a button. */
  public boolean isDemo() {
    return demo;
  }
}
