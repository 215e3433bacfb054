/**
 * What may leave the office: the one place that decides which fields, captions, past visits, rows,
 * looks and questions travel to a device. Start at {@link org.whinridge.core.travel.Outdoors}.
 *
 * <p>Comes in: schemas, features, forms, looks and visits as the office has them. Goes out: the
 * same without what belongs to the office. Never: a way around it; a pack is made of what comes out
 * here.
 */
package org.whinridge.core.travel;
