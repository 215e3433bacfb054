/**
 * What the values of a column say: their type and how they are read ({@link
 * org.whinridge.core.profile.TypeGuess}, {@link org.whinridge.core.layer.Reading}), where rows are
 * ({@link org.whinridge.core.profile.PlaceColumns}), what stands out ({@link
 * org.whinridge.core.profile.FieldProfile}), which spellings are one value ({@link
 * org.whinridge.core.profile.NearDuplicates}), codes for labels and parts of notes.
 *
 * <p>Comes in: values. Goes out: findings with their evidence. Nothing here changes a value.
 */
package org.whinridge.core.profile;
