// The rules of the job, compiled from the same Java that the server runs. Loaded once, when first needed.
let loading;

export function loadEngine() {
  loading ??= import("field-engine");
  return loading;
}
