package org.whinridge.app;

import java.lang.reflect.Proxy;
import java.sql.Connection;
import java.sql.SQLException;
import java.util.concurrent.ConcurrentLinkedQueue;
import javax.sql.DataSource;
import org.springframework.beans.factory.config.BeanPostProcessor;
import org.springframework.boot.test.context.TestConfiguration;
import org.springframework.context.annotation.Bean;
import org.springframework.jdbc.datasource.DelegatingDataSource;

/**
 * Watches in all tests with a server that no thread takes a second connection while it holds one:
 * with a pool of n, n such threads would wait for each other for ever.
 */
@TestConfiguration(proxyBeanMethods = false)
class OneConnection {
  /** Where a second one was asked for; empty in a sound application. */
  static final ConcurrentLinkedQueue<Throwable> SECOND = new ConcurrentLinkedQueue<>();

  private static final ThreadLocal<int[]> HELD = ThreadLocal.withInitial(() -> new int[1]);

  @Bean
  static BeanPostProcessor watchConnections() {
    return new BeanPostProcessor() {
      @Override
      public Object postProcessAfterInitialization(Object bean, String name) {
        return bean instanceof DataSource d && !(bean instanceof Watched) ? new Watched(d) : bean;
      }
    };
  }

  /** An upgrade has its own connections, before anybody else has one. */
  private static boolean isUpgrade() {
    return StackWalker.getInstance()
        .walk(all -> all.anyMatch(f -> f.getClassName().startsWith("org.flywaydb.")));
  }

  private static final class Watched extends DelegatingDataSource {
    Watched(DataSource target) {
      super(target);
    }

    @Override
    public Connection getConnection() throws SQLException {
      int[] held = HELD.get();
      if (held[0] > 0 && !isUpgrade())
        SECOND.add(new Throwable("a second connection in " + Thread.currentThread()));
      Connection c = super.getConnection();
      held[0]++;
      boolean[] open = {true};
      return (Connection)
          Proxy.newProxyInstance(
              getClass().getClassLoader(),
              new Class<?>[] {Connection.class},
              (proxy, method, args) -> {
                if (method.getName().equals("close") && open[0]) {
                  open[0] = false;
                  held[0]--;
                }
                try {
                  return method.invoke(c, args);
                } catch (java.lang.reflect.InvocationTargetException e) {
                  throw e.getCause();
                }
              });
    }
  }
}
