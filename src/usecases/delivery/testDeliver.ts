import { makeCourier, type DeliveryWork } from './deliver';

/**
 * Delivers what is due, until nothing is.
 *
 * @returns how many tries were made
 */
export async function deliverDue(work: DeliveryWork): Promise<number> {
  const errors: unknown[] = [];
  const courier = makeCourier(work, (error) => errors.push(error));
  await courier.look();
  await courier.idle();
  if (errors.length > 0) throw errors[0];
  return courier.tries();
}
