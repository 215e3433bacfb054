/**
 * How layers are drawn: a {@link org.whinridge.core.look.Look} is data; {@link
 * org.whinridge.core.look.ReadyLook} made from it and a schema gives each feature its classes,
 * turns, sizes and label, and everybody who draws (maps, legend, cards, documents) the same
 * instructions. {@link org.whinridge.core.look.Breaks} and {@link
 * org.whinridge.core.look.LookProposal} make looks. Nothing here knows a browser or a file.
 */
package org.whinridge.core.look;
