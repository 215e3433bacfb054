package org.whinridge.engine.teavm;

import java.util.Arrays;
import java.util.Map;
import org.teavm.model.BasicBlock;
import org.teavm.model.ClassHolder;
import org.teavm.model.ClassHolderTransformer;
import org.teavm.model.ClassHolderTransformerContext;
import org.teavm.model.Instruction;
import org.teavm.model.MethodHolder;
import org.teavm.model.MethodReference;
import org.teavm.model.Program;
import org.teavm.model.ValueType;
import org.teavm.model.instructions.InvokeInstruction;

/**
 * Points calls of Math methods that the compiler's library has wrong at {@link CorrectMath}, in
 * third-party classes too.
 */
public final class LibraryCorrections implements ClassHolderTransformer {
  private static final ValueType D = ValueType.DOUBLE;
  private static final Map<String, MethodReference> CORRECTED =
      Map.of(
          "IEEEremainder",
          to("ieeeRemainder", D, D, D),
          "round",
          to("round", D, ValueType.LONG),
          "hypot",
          to("hypot", D, D, D),
          "rint",
          to("rint", D, D),
          "ulp",
          to("ulp", D, D),
          "log10",
          to("log10", D, D),
          "log1p",
          to("log1p", D, D),
          "expm1",
          to("expm1", D, D),
          "cbrt",
          to("cbrt", D, D));

  private static MethodReference to(String name, ValueType... signature) {
    return new MethodReference("org.whinridge.engine.teavm.CorrectMath", name, signature);
  }

  @Override
  public void transformClass(ClassHolder cls, ClassHolderTransformerContext context) {
    String name = cls.getName();
    if (name.startsWith("java.")
        || name.startsWith("org.teavm.")
        || name.startsWith("org.whinridge.engine.teavm.")) return;
    for (MethodHolder m : cls.getMethods()) {
      Program p = m.getProgram();
      if (p != null)
        for (BasicBlock b : p.getBasicBlocks())
          for (Instruction i : b) if (i instanceof InvokeInstruction call) redirect(call);
    }
  }

  private static void redirect(InvokeInstruction call) {
    MethodReference from = call.getMethod();
    if (!from.getClassName().equals("java.lang.Math")
        && !from.getClassName().equals("java.lang.StrictMath")) return;
    MethodReference to = CORRECTED.get(from.getName());
    if (to != null && Arrays.equals(to.getSignature(), from.getSignature())) call.setMethod(to);
  }
}
