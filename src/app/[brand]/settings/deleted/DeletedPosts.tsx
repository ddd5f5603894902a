'use client';

import { useState } from 'react';
import { useRouter } from 'next/navigation';
import Table from 'react-bootstrap/Table';
import { DELETED_DAYS } from '@/core/posts/deleted';
import type { DeletedPost } from '@/usecases/posts/deleted';
import type { ChangedPost } from '../../calendar/changed';
import { call, problemOf } from '@/ui/api';
import { CallSign } from '@/ui/CallSign';
import { dayAndTime, shortDate } from '@/ui/format';
import { useSay } from '@/ui/messages';
import { useShell } from '@/ui/shell';
import { WordButton } from '@/ui/WordButton';

/** What was deleted lately, each to be brought back to where it stood. */
export function DeletedPosts({
  posts,
  channels,
}: {
  posts: readonly DeletedPost[];
  channels: readonly { id: string; name: string; callSign: string; color: string }[];
}) {
  const { brand } = useShell();
  const router = useRouter();
  const say = useSay();
  const [back, setBack] = useState<ReadonlySet<string>>(new Set());

  async function bringBack({ id, title, date }: DeletedPost) {
    const answer = await call<ChangedPost>('POST', `/api/posts/${id}/deeds`, { deed: 'restore', version: 0 });
    const problem = problemOf(answer);
    if (problem) return say({ text: problem, wrong: true });
    setBack((now) => new Set([...now, id]));
    const at = `/${brand.slug}/calendar?post=${id}${date ? `&date=${date}` : ''}`;
    say({ text: `“${title}” is back where it stood.`, deed: { label: 'Open it', run: () => router.push(at) } });
    router.refresh();
  }

  const left = posts.filter(({ id }) => !back.has(id));
  return (
    <>
      <p className="soft">What was deleted in the last {DELETED_DAYS} days can be brought back as it was.</p>
      {left.length === 0 ? (
        <p>Nothing was deleted.</p>
      ) : (
        <Table bsPrefix="settings-table">
          <thead>
            <tr>
              <th scope="col">Post</th>
              <th scope="col">Was planned for</th>
              <th scope="col">Deleted</th>
              <th scope="col">
                <span className="visually-hidden">Actions</span>
              </th>
            </tr>
          </thead>
          <tbody>
            {left.map((post) => {
              const channel = channels.find(({ id }) => id === post.channelId);
              return (
                <tr key={post.id}>
                  <td data-label="Post">
                    {channel && <CallSign sign={channel.callSign} color={channel.color} name={channel.name} />}{' '}
                    <b dir="auto">{post.title}</b>{' '}
                    <span className="soft" dir="auto">
                      {post.caption.replace(/\s+/g, ' ').slice(0, 80)}
                    </span>
                  </td>
                  <td data-label="Was planned for" className="figures">
                    {post.date ? `${shortDate(post.date)} ${post.time ?? ''}` : 'no date'}
                  </td>
                  <td data-label="Deleted" className="figures">
                    {dayAndTime(post.deletedAt, brand.zone)}
                  </td>
                  <td className="row-deeds">
                    <WordButton onClick={() => void bringBack(post)} aria-label={`Bring back ${post.title}`}>
                      Bring back
                    </WordButton>
                  </td>
                </tr>
              );
            })}
          </tbody>
        </Table>
      )}
    </>
  );
}
