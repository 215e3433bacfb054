/**
 * What is somebody's own: devices with their pairing, and the page on which people see to their
 * account. Devices speak to {@code /api/day/**} with a token of person and device.
 */
package org.whinridge.app.own;
