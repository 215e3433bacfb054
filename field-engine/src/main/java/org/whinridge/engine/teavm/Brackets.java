package org.whinridge.engine.teavm;

import org.teavm.backend.javascript.rendering.Precedence;
import org.teavm.backend.javascript.spi.InjectedBy;
import org.teavm.backend.javascript.spi.Injector;
import org.teavm.backend.javascript.spi.InjectorContext;
import org.teavm.interop.NoSideEffects;
import org.teavm.model.MethodReference;

/** Writes an expression in brackets into the script; it exists in the compiled engine only. */
public final class Brackets implements Injector {
  /** The number, in brackets. */
  @InjectedBy(Brackets.class)
  @NoSideEffects
  public static native double whole(double x);

  /** The number, in brackets. */
  @InjectedBy(Brackets.class)
  @NoSideEffects
  public static native float whole(float x);

  @Override
  public void generate(InjectorContext context, MethodReference method) {
    context.getWriter().append('(');
    context.writeExpr(context.getArgument(0), Precedence.min());
    context.getWriter().append(')');
  }
}
