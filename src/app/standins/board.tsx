import type { ReactNode } from 'react';
import { SHIPPED_RULE_SHEETS } from '@/core/rulesheets/shipped';
import { bimlo } from '@/runtime/bimlo';
import { isVideo } from '@/core/media/video';
import type { AcceptedPost } from '@/standins/network/store';

/** The made-up network of an address, if there is one. */
export const networkOf = (slug: string) => SHIPPED_RULE_SHEETS.find((sheet) => sheet.slug === slug);

/** Asks the made-up networks; undefined when there is nothing, or they are not running. */
export async function askNetworks<T>(path: string): Promise<T | undefined> {
  const { networkUrl } = await bimlo();
  try {
    const response = await fetch(`${networkUrl}${path}`, { cache: 'no-store' });
    return response.ok ? ((await response.json()) as T) : undefined;
  } catch (error) {
    if (error instanceof TypeError) return undefined;
    throw error;
  }
}

/** The one plain drawing that all made-up networks share. */
export function Board({ slug, children }: { slug: string; children: ReactNode }) {
  const sheet = networkOf(slug);
  return (
    <main className="notice-board">
      <header>
        <h1>{sheet?.name ?? slug}</h1>
        <p className="soft">
          A made-up network ({sheet?.about}) that comes with Bimlo. What was published stands here as the network took
          it.
        </p>
      </header>
      {children}
    </main>
  );
}

/** A post as the network holds it. */
export function Published({ post, chosen = false }: { post: AcceptedPost; chosen?: boolean }) {
  const { parcel } = post;
  const headline = parcel.texts.find((text) => text.name === 'headline')?.text;
  const caption = parcel.texts.find((text) => text.name === 'caption')?.text;
  const comment = parcel.texts.find((text) => text.name === 'firstComment')?.text;
  return (
    <article id={post.id} className={chosen ? 'is-chosen' : undefined} data-key={post.key}>
      <div className="soft small-text">
        <b>{parcel.account}</b> · <span className="figures">{post.acceptedAt.slice(0, 16).replace('T', ' ')} UTC</span>
      </div>
      {parcel.pictures.length > 0 && (
        <div className="pictures">
          {parcel.pictures.map((picture) =>
            isVideo(picture) ? (
              <video key={picture.sha256} src={`/standins/pictures/${picture.sha256}`} controls preload="none" />
            ) : (
              <img key={picture.sha256} src={`/standins/pictures/${picture.sha256}`} alt={picture.alt} loading="lazy" />
            ),
          )}
        </div>
      )}
      {headline && <h2>{headline}</h2>}
      {caption && (
        <p dir="auto" className="said">
          {caption}
        </p>
      )}
      {parcel.parts?.map(
        ({ text }, index) =>
          text !== '' && (
            <p key={index} className="said">
              {text}
            </p>
          ),
      )}
      {comment && <p className="said soft">{comment}</p>}
    </article>
  );
}
