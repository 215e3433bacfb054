/** Running the application: where data lie, backup, health, jobs. */
package org.whinridge.app.ops;
