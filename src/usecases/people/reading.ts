/** People as pages read them. Plain queries, handed on as they are. */

export {
  type Person,
  brandIdsOfPeople,
  listPeopleDaysOff,
  listPeopleOfBrand,
  maybeActor,
  maybePersonBySlug,
} from '@/data/people/people';
