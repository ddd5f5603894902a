'use client';

import { useRouter } from 'next/navigation';
import type { ParcelPicture } from '@/core/delivery/network';
import { isVideo } from '@/core/media/video';
import { localOf, type Instant } from '@/core/time/plan';
import type { Departure } from '@/usecases/delivery/loadDepartures';
import { CallSign } from '@/ui/CallSign';
import { fileSize, shortDate } from '@/ui/format';
import { useSay } from '@/ui/messages';
import { Only, useShell } from '@/ui/shell';
import { useCopy } from '@/ui/useCopy';
import { useDeed } from '@/ui/useDeed';
import { WordButton } from '@/ui/WordButton';
import Button from 'react-bootstrap/Button';
import { useSaidOut } from '../SaidOutFields';
import { HandOverOtherwise } from './HandOverOtherwise';

/** What a person needs to post by hand: the text to copy, the pictures to save, a place for the address, and “it is out”. */
export function HandOver({ departure, now }: { departure: Departure; now: Instant }) {
  const { brand, channels } = useShell();
  const router = useRouter();
  const say = useSay();
  const copy = useCopy();
  const { run, busy } = useDeed();
  const out = useSaidOut('hand-over', localOf(now, brand.zone));
  const { slip, handOver } = departure;
  const channel = channels.find((candidate) => candidate.id === slip.channelId);
  if (!handOver || !channel) return null;

  async function confirm() {
    const answer = await run('POST', `/api/posts/${slip.id}/deeds`, {
      deed: 'declareOut',
      version: slip.version,
      ...out.said,
    });
    if (answer.kind !== 'done') return;
    say({ text: `“${slip.title}” is published.` });
    router.refresh();
  }

  return (
    <section className="hand-over" aria-label={`Post by hand: ${slip.title}`}>
      <div className="figures soft small-text">
        {slip.date && shortDate(slip.date)} {slip.time}
      </div>
      <h2>
        <CallSign sign={slip.callSign} color={channel.color} /> {slip.title}
      </h2>
      <p className="soft small-text">
        Bimlo does not send this one. Post it on {channel.sheet.name} by hand, then say so here.
      </p>
      <ol>
        {handOver.texts.map(({ label, text }) => (
          <li key={label}>
            <Button variant="outline" onClick={() => void copy(label, text)}>
              Copy the {label.toLowerCase()}
            </Button>
            <blockquote>{text}</blockquote>
          </li>
        ))}
        {handOver.pictures.map((picture, place) => (
          <li key={picture.id ?? picture.sha256}>
            <HandedPicture
              postId={slip.id}
              place={place}
              picture={picture}
              onCopy={(label, text) => void copy(label, text)}
            />
          </li>
        ))}
        <Only deed="send">
          <li>{out.fields}</li>
        </Only>
      </ol>
      <Only deed="send">
        <Button disabled={busy || out.isOpen} onClick={() => void confirm()}>
          Mark as published
        </Button>
      </Only>
      <p className="small-text">
        <a className="word" href={`/api/take-away?post=${slip.id}`} download>
          All of it as a ZIP
        </a>
      </p>
      <Only deed="changePosts">
        <HandOverOtherwise slip={slip} />
      </Only>
    </section>
  );
}

/** A picture to be saved as it is to be posted, or as it was taken in; a video as it is. With its alt text to copy. */
function HandedPicture({
  postId,
  place,
  picture,
  onCopy,
}: {
  postId: string;
  /** Its place among the pictures that leave, from 0. */
  place: number;
  picture: ParcelPicture;
  onCopy: (label: string, text: string) => void;
}) {
  const original = `/api/media/${picture.sha256}?save`;
  const size = fileSize(picture.bytes);
  return (
    <div className="handed-picture">
      {!isVideo(picture) && <img src={`/api/media/${picture.sha256}?size=thumb`} alt={picture.alt} />}
      <div>
        {isVideo(picture) ? (
          <a className="btn btn-outline" href={original} download={picture.fileName}>
            Save the video ({size})
          </a>
        ) : (
          <a className="btn btn-outline" href={`/api/posts/${postId}/leaving/${place}`} download>
            Save the picture{picture.recipe?.crop ? ', cropped' : ''}
          </a>
        )}
        <p className="small-text">
          {!isVideo(picture) && (
            <a href={original} download={picture.fileName}>
              The original ({size})
            </a>
          )}
          {picture.alt !== '' && (
            <WordButton onClick={() => onCopy('Alt text', picture.alt)}>Copy its alt text</WordButton>
          )}
        </p>
      </div>
    </div>
  );
}
