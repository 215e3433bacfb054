package org.whinridge.app.people;

import org.whinridge.core.access.AccountState;

/**
 * An account, without its password.
 *
 * @param email "" when none is known
 * @param zone an identifier of the time zone database; "" for the browser's own
 * @param style a language tag by whose style numbers and days are written; "" for the browser's own
 * @param singleKeys whether single keys do something on the desk's pages
 */
public record Account(
    String name,
    boolean keeper,
    AccountState state,
    String email,
    boolean emailConfirmed,
    String organisation,
    String zone,
    String style,
    boolean singleKeys) {}
