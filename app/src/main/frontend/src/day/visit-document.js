// What is sent of a visit, whichever way it goes.

/** A visit as it is handed in. */
export function visitDocument(v) {
  const g = v.base.geometry;
  return {
    id: v.id,
    round: v.round,
    ...(v.form ? { form: v.form } : v.formFile && { formFile: v.formFile }),
    edition: v.start.edition,
    feature: v.feature,
    startedAt: v.startedAt,
    endedAt: v.endedAt,
    start: v.start,
    state: v.state,
    ...v.result,
    base: { ...v.result.base, geometry: g ?? null },
    photos: v.photos,
  };
}
