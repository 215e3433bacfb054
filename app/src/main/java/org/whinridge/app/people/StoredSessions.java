package org.whinridge.app.people;

import java.time.Duration;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.beans.factory.annotation.Value;
import org.springframework.context.annotation.Bean;
import org.springframework.context.annotation.Configuration;
import org.springframework.core.convert.support.GenericConversionService;
import org.springframework.core.serializer.support.DeserializingConverter;
import org.springframework.core.serializer.support.SerializationFailedException;
import org.springframework.core.serializer.support.SerializingConverter;
import org.springframework.jdbc.core.JdbcOperations;
import org.springframework.scheduling.annotation.Scheduled;
import org.springframework.session.config.annotation.web.http.EnableSpringHttpSession;
import org.springframework.session.jdbc.JdbcIndexedSessionRepository;
import org.springframework.transaction.PlatformTransactionManager;
import org.springframework.transaction.support.TransactionTemplate;

/** Sessions lie in the store, so that a restart signs nobody out. */
@Configuration(proxyBeanMethods = false)
@EnableSpringHttpSession
class StoredSessions {
  private static final Logger LOG = LoggerFactory.getLogger(StoredSessions.class);

  /**
   * Two requests of one session can write the same attribute at once, and a session can end while
   * one of them is still under way: neither is a failure.
   */
  private static final String ATTRIBUTE =
      "MERGE INTO %TABLE_NAME%_ATTRIBUTES (SESSION_PRIMARY_ID, ATTRIBUTE_NAME, ATTRIBUTE_BYTES) KEY (SESSION_PRIMARY_ID, ATTRIBUTE_NAME)"
          + " SELECT ID, NAME, BYTES FROM (VALUES (CAST(? AS CHAR(36)), CAST(? AS VARCHAR(200)), CAST(? AS BINARY LARGE OBJECT))) SENT (ID, NAME, BYTES)"
          + " WHERE EXISTS (SELECT 1 FROM %TABLE_NAME% WHERE PRIMARY_ID = SENT.ID)";

  @Bean
  JdbcIndexedSessionRepository sessionsAsStored(
      JdbcOperations jdbc,
      PlatformTransactionManager manager,
      @Value("${server.servlet.session.timeout}") Duration timeout) {
    // what ends sessions within a transaction uses its connection: one thread holds one
    JdbcIndexedSessionRepository out =
        new JdbcIndexedSessionRepository(jdbc, new TransactionTemplate(manager));
    out.setDefaultMaxInactiveInterval(timeout);
    out.setCreateSessionAttributeQuery(ATTRIBUTE);
    GenericConversionService bytes = new GenericConversionService();
    bytes.addConverter(Object.class, byte[].class, new SerializingConverter());
    bytes.addConverter(byte[].class, Object.class, StoredSessions::read);
    out.setConversionService(bytes);
    return out;
  }

  /** What an older version left in a session and this one can't read is as if it were not there. */
  private static Object read(byte[] stored) {
    try {
      return new DeserializingConverter().convert(stored);
    } catch (SerializationFailedException e) {
      LOG.warn("a part of a session can't be read any more and is left out: {}", e.getMessage());
      return null;
    }
  }

  @Bean
  @org.springframework.context.annotation.Primary
  SparingSessions<?> sparingSessions(JdbcIndexedSessionRepository stored) {
    return new SparingSessions<>(stored);
  }

  /** Takes away those that have run out. */
  @Configuration(proxyBeanMethods = false)
  static class Sweeper {
    private final JdbcIndexedSessionRepository stored;

    Sweeper(JdbcIndexedSessionRepository stored) {
      this.stored = stored;
    }

    @Scheduled(initialDelay = 600_000, fixedDelay = 600_000)
    void sweep() {
      stored.cleanUpExpiredSessions();
    }
  }
}
