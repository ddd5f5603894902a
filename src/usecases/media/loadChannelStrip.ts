import { NO_FILTER } from '@/core/calendar/filter';
import { outSize, type Recipe } from '@/core/media/fit';
import { isVideo } from '@/core/media/video';
import { addDays } from '@/core/time/days';
import type { LocalDate, LocalTime } from '@/core/time/plan';
import { FORMAT_LABELS } from '@/core/rulesheets/types';
import type { Channel } from '@/data/brands/channels';
import type { Db } from '@/data/database/db';
import { listPostsBetween } from '@/data/posts/postLines';

/** A post of a channel by what is to be seen of it. */
export interface StripFrame {
  postId: string;
  title: string;
  format: string;
  date: LocalDate;
  time: LocalTime | null;
  isOut: boolean;
  /** Its first picture as it goes out; null while it has none. */
  picture: { sha256: string; alt: string; width: number; height: number; crop: Recipe['crop'] } | null;
}

/** Days shown before today, and from today on. */
const DAYS = { back: 28, ahead: 90 };

/** What a channel shows and will show, by date: the last four weeks and all that is planned for the next three months. */
export async function loadChannelStrip(db: Db, channel: Channel, today: LocalDate): Promise<StripFrame[]> {
  const posts = await listPostsBetween(
    db,
    { brandIds: [channel.brandId], filter: { ...NO_FILTER, channels: [channel.id] }, today },
    addDays(today, -DAYS.back),
    addDays(today, DAYS.ahead),
  );
  return posts.map((post) => {
    const picture = post.pictures.find((one) => !isVideo(one));
    return {
      postId: post.id,
      title: post.title,
      format: FORMAT_LABELS[post.format],
      date: post.date!,
      time: post.time,
      isOut: post.stage === 'published',
      picture: picture ? { sha256: picture.sha256, alt: picture.alt, crop: picture.crop, ...outSize(picture) } : null,
    };
  });
}
