/** Deliveries as pages read them. Plain queries, handed on as they are. */

export { countDueByHand, maybeDeliveryOfPost } from '@/data/delivery/deliveries';
export { countInTrouble } from '@/data/posts/postLines';
export { existsOpenRestore } from '@/data/delivery/restores';
