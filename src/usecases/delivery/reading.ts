/** Deliveries as pages read them. Plain queries, handed on as they are. */

export { maybeDeliveryOfPost } from '@/data/delivery/deliveries';
