package org.whinridge.core.read;

/**
 * A condition in three-valued logic as two plain ones: where it says yes, and where it says no;
 * where neither does, it is unknown.
 */
record Tests(Test yes, Test no) {
  /** Marks rows of a block: 1 where the test holds, else 0. */
  interface Test {
    void mark(int from, int n, byte[] marks);
  }

  Tests not() {
    return new Tests(no, yes);
  }

  Tests and(Tests o) {
    return new Tests(both(yes, o.yes), either(no, o.no));
  }

  Tests or(Tests o) {
    return new Tests(either(yes, o.yes), both(no, o.no));
  }

  private static Test both(Test a, Test b) {
    byte[] second = new byte[1024];
    return (from, n, marks) -> {
      a.mark(from, n, marks);
      b.mark(from, n, second);
      for (int i = 0; i < n; i++) marks[i] &= second[i];
    };
  }

  private static Test either(Test a, Test b) {
    byte[] second = new byte[1024];
    return (from, n, marks) -> {
      a.mark(from, n, marks);
      b.mark(from, n, second);
      for (int i = 0; i < n; i++) marks[i] |= second[i];
    };
  }
}
