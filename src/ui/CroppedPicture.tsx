import type { Crop } from '@/core/media/fit';

/** A stored picture in the shape it goes out in: only the part of its crop shows. */
export function CroppedPicture({
  sha256,
  alt,
  crop,
  size,
}: {
  sha256: string;
  alt: string;
  crop: Crop | null;
  /** Pixels of what goes out. */
  size: { width: number; height: number };
}) {
  const place = crop
    ? {
        width: `${100 / crop.width}%`,
        left: `${(-100 * crop.x) / crop.width}%`,
        top: `${(-100 * crop.y) / crop.height}%`,
      }
    : { width: '100%', left: 0, top: 0 };
  return (
    <div className="cropped-picture" style={{ aspectRatio: `${size.width} / ${size.height}` }}>
      <img src={`/api/media/${sha256}`} alt={alt} style={place} loading="lazy" />
    </div>
  );
}
