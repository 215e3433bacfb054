package org.whinridge.engine.teavm;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import org.teavm.model.BasicBlock;
import org.teavm.model.ClassHolder;
import org.teavm.model.ClassHolderTransformer;
import org.teavm.model.ClassHolderTransformerContext;
import org.teavm.model.Instruction;
import org.teavm.model.MethodHolder;
import org.teavm.model.MethodReference;
import org.teavm.model.Program;
import org.teavm.model.ValueType;
import org.teavm.model.Variable;
import org.teavm.model.instructions.BinaryInstruction;
import org.teavm.model.instructions.BinaryOperation;
import org.teavm.model.instructions.DoubleConstantInstruction;
import org.teavm.model.instructions.InvocationType;
import org.teavm.model.instructions.InvokeInstruction;
import org.teavm.model.instructions.NumericOperandType;

/**
 * Mends two things of the compiler, in third-party classes too. Calls of Math methods that its
 * library has wrong are pointed at {@link CorrectMath}. And the script that it writes loses the
 * brackets of {@code a + (b - c)}, {@code a * (b / c)} and the like, which is another number in
 * floating point: double-double arithmetic, and with it every cut of two geometries, was wrong.
 * There the right side goes through {@link Brackets}.
 */
public final class LibraryCorrections implements ClassHolderTransformer {
  private static final ValueType D = ValueType.DOUBLE;
  private static final MethodReference WHOLE =
      new MethodReference(Brackets.class.getName(), "whole", D, D);
  private static final MethodReference WHOLE_FLOAT =
      new MethodReference(Brackets.class.getName(), "whole", ValueType.FLOAT, ValueType.FLOAT);
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
      if (p == null) continue;
      Set<Variable> constants = new HashSet<>();
      List<Instruction> all = new ArrayList<>();
      for (BasicBlock b : p.getBasicBlocks()) for (Instruction i : b) all.add(i);
      for (Instruction i : all)
        if (i instanceof DoubleConstantInstruction c) constants.add(c.getReceiver());
      for (Instruction i : all)
        if (i instanceof InvokeInstruction call) redirect(call);
        else if (i instanceof BinaryInstruction sum) keepBrackets(sum, p, constants);
    }
  }

  private static void keepBrackets(BinaryInstruction i, Program p, Set<Variable> constants) {
    NumericOperandType type = i.getOperandType();
    if (type != NumericOperandType.DOUBLE && type != NumericOperandType.FLOAT) return;
    BinaryOperation op = i.getOperation();
    if (op != BinaryOperation.ADD && op != BinaryOperation.MULTIPLY && op != BinaryOperation.DIVIDE)
      return;
    if (constants.contains(i.getSecondOperand())) return;
    InvokeInstruction whole = new InvokeInstruction();
    whole.setType(InvocationType.SPECIAL);
    whole.setMethod(type == NumericOperandType.DOUBLE ? WHOLE : WHOLE_FLOAT);
    whole.setArguments(i.getSecondOperand());
    whole.setReceiver(p.createVariable());
    whole.setLocation(i.getLocation());
    i.insertPrevious(whole);
    i.setSecondOperand(whole.getReceiver());
  }

  private static void redirect(InvokeInstruction call) {
    MethodReference from = call.getMethod();
    if (!from.getClassName().equals("java.lang.Math")
        && !from.getClassName().equals("java.lang.StrictMath")) return;
    MethodReference to = CORRECTED.get(from.getName());
    if (to != null && Arrays.equals(to.getSignature(), from.getSignature())) call.setMethod(to);
  }
}
