'use client';

import { useState } from 'react';
import Button from 'react-bootstrap/Button';
import { Dialog } from '@/ui/Dialog';
import ReactCrop from 'react-image-crop';
import 'react-image-crop/dist/ReactCrop.css';
import { isShapeIn, nearestShape, outSize, proposeCrop, shapeChoices, shapeOf, type Crop } from '@/core/media/fit';
import type { SheetPicture } from '@/core/posts/sheet';
import type { ShapeRange } from '@/core/rulesheets/types';
import { WordButton } from '@/ui/WordButton';

/** A movable frame over a picture, in the shapes the network takes. The original stays; the frame belongs to this post. */
export function CropDialog({
  picture,
  postId,
  range,
  onCrop,
  onClose,
}: {
  picture: SheetPicture;
  postId: string;
  /** Shapes the network takes; null for any. */
  range: ShapeRange | null;
  /** Null for the whole picture. */
  onCrop: (crop: Crop | null) => void;
  onClose: () => void;
}) {
  const choices = shapeChoices(range);
  const [crop, setCrop] = useState<Crop>(
    picture.crop ?? proposeCrop(picture, range ? nearestShape(shapeOf(picture), range) : shapeOf(picture)),
  );
  // A frame is measured on the picture: before that is drawn it cannot be moved.
  const [isDrawn, setDrawn] = useState(false);
  const [shape, setShape] = useState(() => shapeOf(outSize({ ...picture, crop })));
  const size = outSize({ ...picture, crop });
  const isWholeTaken = !range || isShapeIn(shapeOf(picture), range);

  function choose(next: number) {
    const focus = { x: crop.x + crop.width / 2, y: crop.y + crop.height / 2 };
    setShape(next);
    setCrop(proposeCrop(picture, next, focus));
  }

  return (
    <Dialog
      title={`Crop ${picture.fileName}`}
      onClose={onClose}
      size="lg"
      bodyClassName="crop-dialog"
      deeds={
        <>
          <Button onClick={() => onCrop(crop)}>Use this crop</Button>
          {isWholeTaken && (
            <Button variant="outline" onClick={() => onCrop(null)}>
              Use the whole picture
            </Button>
          )}
          <a
            className="word push"
            href={`/api/posts/${postId}/media/${picture.id}`}
            target="_blank"
            rel="noreferrer"
            title="Upright, cropped, and without data about where it was taken"
          >
            See it as it will be sent
          </a>
        </>
      }
    >
      <div className="crop-shapes" role="group" aria-label="Shape">
        {choices.map((choice) => (
          <WordButton
            key={choice.label}
            className="figures"
            aria-pressed={Math.abs(choice.shape - shape) < 0.005}
            onClick={() => choose(choice.shape)}
          >
            {choice.label}
          </WordButton>
        ))}
        <span className="figures soft push">
          {size.width} × {size.height} px
        </span>
      </div>
      <ReactCrop
        aspect={shape}
        disabled={!isDrawn}
        keepSelection
        ruleOfThirds
        crop={{
          unit: '%',
          x: crop.x * 100,
          y: crop.y * 100,
          width: crop.width * 100,
          height: crop.height * 100,
        }}
        onChange={(_pixels, percent) =>
          setCrop({
            x: percent.x / 100,
            y: percent.y / 100,
            width: percent.width / 100,
            height: percent.height / 100,
          })
        }
        ariaLabels={{
          cropArea: 'Frame: arrows move it',
          nwDragHandle: 'Upper left corner',
          nDragHandle: 'Upper edge',
          neDragHandle: 'Upper right corner',
          eDragHandle: 'Right edge',
          seDragHandle: 'Lower right corner',
          sDragHandle: 'Lower edge',
          swDragHandle: 'Lower left corner',
          wDragHandle: 'Left edge',
        }}
      >
        <img
          className="crop-picture"
          src={`/api/media/${picture.sha256}`}
          alt={picture.alt || picture.fileName}
          onLoad={() => setDrawn(true)}
        />
      </ReactCrop>
    </Dialog>
  );
}
