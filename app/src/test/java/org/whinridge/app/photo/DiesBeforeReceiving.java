package org.whinridge.app.photo;

import org.aopalliance.intercept.MethodInterceptor;
import org.springframework.aop.framework.ProxyFactory;
import org.springframework.beans.factory.config.BeanPostProcessor;
import org.springframework.boot.SpringApplication;
import org.whinridge.app.WhinridgeApplication;

/** The application, killed in the moment in which the first photo would be taken. */
public final class DiesBeforeReceiving {
  private DiesBeforeReceiving() {}

  /** Starts it. */
  public static void main(String[] args) {
    SpringApplication a = new SpringApplication(WhinridgeApplication.class);
    a.addInitializers(c -> c.getBeanFactory().addBeanPostProcessor(new Killing()));
    a.run(args);
  }

  private static final class Killing implements BeanPostProcessor {
    @Override
    public Object postProcessAfterInitialization(Object bean, String name) {
      if (!name.equals("photos")) return bean;
      ProxyFactory f = new ProxyFactory(bean);
      f.setProxyTargetClass(true);
      f.addAdvice(
          (MethodInterceptor)
              call -> {
                if (call.getMethod().getName().equals("receive")) Runtime.getRuntime().halt(137);
                return call.proceed();
              });
      return f.getProxy();
    }
  }
}
