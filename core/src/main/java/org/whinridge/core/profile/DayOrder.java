package org.whinridge.core.profile;

/** What a column says of the order of day and month in dates such as 6.5.2024. */
public enum DayOrder {
  /** It has no such dates. */
  NONE,
  /** Some date is only one when the day comes first. */
  DAY_FIRST,
  /** Some date is only one when the month comes first. */
  MONTH_FIRST,
  /** All could be both, or some are only the one and some only the other: somebody must say. */
  UNSURE
}
