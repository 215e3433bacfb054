package org.whinridge.core.place;

/**
 * Where a coordinate system is meant to be used.
 *
 * @param name of that part of the earth, as the system's register has it
 * @param box around it
 */
public record AreaOfUse(String name, Box box) {}
