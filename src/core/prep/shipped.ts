import type { Craft, LeadUnit, PrepLine, Work } from './step';
import { PREP_SUBJECTS, type PrepSubject } from './subject';

const line = (
  title: string,
  work: Work,
  craft: Craft | null,
  lead: number,
  minutes: number,
  more: { needed?: boolean; leadIn?: LeadUnit } = {},
): PrepLine => ({
  title,
  work,
  ownerId: null,
  craft,
  lead,
  leadIn: more.leadIn ?? 'working',
  minutes,
  note: '',
  needed: more.needed ?? false,
  ticksItself: false,
});

const caption = (lead: number, minutes: number): PrepLine => line('Write the caption', 'words', null, lead, minutes);
const replies = line('Reply to comments', 'sending', 'manager', -1, 15, { leadIn: 'calendar' });
const hashtags = line('Pick hashtags', 'words', null, 1, 5);

/** The prep a new brand begins with, by format and kind of piece. A plain message needs none of its own. */
const SHIPPED: Partial<Record<PrepSubject, readonly PrepLine[]>> = {
  photo: [caption(3, 20), line('Choose and crop the picture', 'picture', 'designer', 2, 20), hashtags, replies],
  carousel: [
    line('Write the slides', 'words', null, 5, 45),
    line('Design the slides', 'picture', 'designer', 3, 120),
    caption(2, 20),
    hashtags,
    replies,
  ],
  shortVideo: [
    line('Write the script', 'words', null, 6, 30),
    line('Record', 'recording', 'videoEditor', 4, 45),
    line('Edit', 'editing', 'videoEditor', 3, 90, { needed: true }),
    caption(2, 15),
    line('Make the cover', 'picture', 'designer', 1, 20),
    replies,
  ],
  longVideo: [
    line('Write the script', 'words', null, 10, 120),
    line('Record', 'recording', 'videoEditor', 7, 120),
    line('Edit', 'editing', 'videoEditor', 4, 300, { needed: true }),
    line('Write the description', 'words', null, 3, 30),
    line('Make the thumbnail', 'picture', 'designer', 3, 45),
    line('Upload', 'sending', 'videoEditor', 2, 20, { needed: true }),
    replies,
  ],
  text: [caption(2, 20), replies],
  thread: [line('Write the parts', 'words', null, 3, 40), replies],
  story: [line('Write the frames', 'words', null, 2, 15), line('Make the frames', 'picture', 'designer', 1, 30)],
  boardPicture: [
    line('Write title and text', 'words', null, 3, 15),
    line('Make the image', 'picture', 'designer', 2, 30),
  ],
  article: [
    line('Draft', 'words', null, 6, 180),
    line('Find a lead picture', 'picture', 'designer', 3, 20),
    line('Proofread', 'words', 'manager', 2, 30, { needed: true }),
  ],
  newsletter: [
    line('Gather the topics', 'words', 'manager', 6, 30),
    line('Write it', 'words', null, 4, 120),
    line('Proofread', 'words', 'manager', 2, 30, { needed: true }),
    line('Send a test', 'sending', null, 1, 10),
  ],
  live: [
    line('Write the agenda', 'words', null, 5, 30),
    line('Announce it', 'words', null, 3, 15),
    line('Test sound and picture', 'recording', 'videoEditor', 1, 30, { needed: true }),
    replies,
  ],
  'piece:talk': [
    line('Agree on the topic', 'words', 'manager', 25, 20),
    line('Write the outline', 'words', null, 20, 60),
    line('Record the talk', 'recording', 'videoEditor', 12, 120),
    line('Write down what was said', 'words', 'assistant', 9, 60),
    line('Choose what to use of it', 'words', 'manager', 7, 30),
  ],
  'piece:article': [
    line('Outline', 'words', null, 12, 30),
    line('Write it', 'words', null, 9, 180),
    line('Proofread', 'words', 'manager', 6, 30),
  ],
  'piece:episode': [
    line('Invite the guest', 'words', 'manager', 25, 20),
    line('Write the questions', 'words', null, 14, 45),
    line('Record the episode', 'recording', 'videoEditor', 10, 90),
    line('Edit the episode', 'editing', 'videoEditor', 7, 180),
    line('Write the show notes', 'words', null, 5, 40),
  ],
  'piece:photoSet': [
    line('Plan the pictures', 'words', null, 12, 20),
    line('Take the pictures', 'picture', 'designer', 9, 120),
    line('Choose and finish them', 'picture', 'designer', 6, 90),
  ],
};

/** The prep sheets that come with Bimlo, one for each subject; a brand changes its own. */
export const SHIPPED_PREP: Readonly<Record<PrepSubject, readonly PrepLine[]>> = Object.fromEntries(
  PREP_SUBJECTS.map((subject) => [subject, SHIPPED[subject] ?? []]),
) as Record<PrepSubject, readonly PrepLine[]>;
