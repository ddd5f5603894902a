import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { filesOf, folderOf, listOf, namesOnce, safeName, type TakenPost } from './takeAway';

const POST: TakenPost = {
  ...{ channel: 'Glassrow', title: 'Rings: what/vanishes?', date: '2026-11-25', time: '14:30', stage: 'ready' },
  address: '',
  labels: { caption: 'Caption', firstComment: 'First comment' },
  parcel: {
    ...{ network: 'glassrow', account: '@moor', format: 'photo', link: 'https://moor.example/a', hashtags: ['#rings'] },
    texts: [
      { name: 'caption', text: 'The rings.' },
      { name: 'firstComment', text: '' },
    ],
    pictures: [
      {
        ...{ sha256: 'a', mime: 'image/jpeg', alt: 'A ring', fileName: 'ring.jpg', bytes: 9 },
        recipe: { crop: { x: 0, y: 0, width: 1, height: 1 }, toMime: null, toBytes: null },
      },
      { sha256: 'b', mime: 'video/mp4', alt: '', fileName: 'ring.mp4', bytes: 9 },
    ],
    words: {} as never,
  },
};

describe('a name of a file', () => {
  it.each([
    ['Rings: what/vanishes?', 'Rings what vanishes'],
    ['  ... ', 'post'],
    ['CON', '_CON'],
    ['aux.txt', '_aux.txt'],
    ['../../etc/passwd', 'etc passwd'],
    ['Ringe über dem Moor', 'Ringe über dem Moor'],
    ['ends. ', 'ends'],
  ])('“%s” is “%s”', (text, name) => expect(safeName(text, 'post')).toBe(name));

  it('never leads elsewhere, nor is it too long, whatever it is made of', () => {
    fc.assert(
      fc.property(fc.string({ unit: 'binary', maxLength: 300 }), (text) => {
        const name = safeName(text, 'post');
        expect(name).toMatch(/^[^\\/:*?"<>|\p{Cc}]+$/u);
        expect(name).not.toMatch(/^\.|[. ]$/);
        expect([...name].length).toBeLessThanOrEqual(61);
      }),
    );
  });

  it('is given once, in large or small letters', () => {
    const once = namesOnce();
    expect(['a.txt', 'A.txt', 'a 2.txt', 'a'].map(once)).toEqual(['a.txt', 'A 2.txt', 'a 2 2.txt', 'a']);
  });
});

it('a post is taken away with its texts, its pictures as they leave and as they were, and their alt texts', () => {
  const folder = folderOf(POST);
  expect(folder).toBe('Glassrow/2026-11-25 14-30 Rings what vanishes');
  const files = [...filesOf(POST, folder)];
  expect(files.map(({ path }) => path.slice(folder.length + 1))).toEqual([
    'caption.txt',
    'hashtags.txt',
    'link.txt',
    'alt texts.txt',
    '1 ring.jpg',
    'originals/1 ring.jpg',
    '2 ring.mp4',
  ]);
  expect(files[3]).toMatchObject({ text: '1 ring.jpg\nA ring' });
  expect(listOf([{ folder, post: POST }]).split('\r\n')[1]).toBe(
    `${folder},Glassrow,'@moor,photo,2026-11-25,14:30,Rings: what/vanishes?,ready,,2`,
  );
});
