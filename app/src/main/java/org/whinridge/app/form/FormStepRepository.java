package org.whinridge.app.form;

import java.util.List;
import java.util.Optional;
import java.util.UUID;
import org.springframework.data.jpa.repository.JpaRepository;
import org.springframework.data.jpa.repository.Modifying;
import org.springframework.data.jpa.repository.Query;
import org.whinridge.core.form.edit.StepState;

interface FormStepRepository extends JpaRepository<FormStepEntity, UUID> {
  Optional<FormStepEntity> findFirstByFormIdAndPersonAndStateOrderByNumberDesc(
      UUID form, String person, StepState state);

  Optional<FormStepEntity> findFirstByFormIdAndPersonAndStateOrderByNumber(
      UUID form, String person, StepState state);

  List<FormStepEntity> findByFormIdAndTouchedGreaterThan(UUID form, long revision);

  @Query("select coalesce(max(s.number), 0) from FormStepEntity s where s.formId = :form")
  long last(UUID form);

  /** What was taken back can't be done again once something else was done. */
  @Modifying
  @Query(
      "update FormStepEntity s set s.state = :left where s.formId = :form and s.person = :person and s.state = :undone")
  void leave(UUID form, String person, StepState undone, StepState left);
}
