/**
 * Values as answers, attributes and rules hold them, with their JSON form.
 *
 * <p>Comes in: JSON values and plain numbers, already bounded in size. Never: a locale, a clock, a
 * layer or a form.
 */
package org.whinridge.core.value;
