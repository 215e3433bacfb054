package org.whinridge.core.access;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.Arrays;
import java.util.EnumSet;
import java.util.List;
import java.util.Set;
import org.junit.jupiter.api.Test;

class RightTest {
  @Test
  void aClosedProjectIsReadOnly() {
    assertThat(Arrays.stream(Right.values()).filter(r -> !r.whenClosed()))
        .containsExactly(Right.REVIEW, Right.CHANGE_LAYERS, Right.BUILD_FORMS, Right.PLAN_ROUNDS);
  }

  private static List<Right> of(Role... roles) {
    Set<Role> all = Set.of(roles);
    return List.of(Right.values()).stream().filter(r -> r.isOf(all)).toList();
  }

  @Test
  void eachRoleMayItsOwn() {
    assertThat(of(Role.COORDINATOR)).containsExactly(Right.values());
    assertThat(of(Role.REVIEWER)).containsExactly(Right.SEE_REGISTER, Right.SEE_WORK, Right.REVIEW);
    assertThat(of(Role.READER)).containsExactly(Right.SEE_REGISTER);
    assertThat(of(Role.INSPECTOR)).containsExactly(Right.GO_OUT);
    assertThat(of()).isEmpty();
  }

  @Test
  void severalRolesMayWhatAnyOfThemMay() {
    assertThat(of(Role.INSPECTOR, Role.READER)).containsExactly(Right.SEE_REGISTER, Right.GO_OUT);
  }

  @Test
  void everyRightIsSomebodys() {
    for (Right r : Right.values()) assertThat(r.isOf(EnumSet.allOf(Role.class))).isTrue();
  }
}
