'use client';

import { closestCenter, DndContext, PointerSensor, useSensor, useSensors, type Announcements } from '@dnd-kit/core';
import {
  SortableContext,
  sortableKeyboardCoordinates,
  useSortable,
  verticalListSortingStrategy,
} from '@dnd-kit/sortable';
import { CSS } from '@dnd-kit/utilities';
import { KeyByKeySensor } from '@/ui/KeyByKeySensor';
import { GripVertical } from 'lucide-react';
import { v4 as newId } from 'uuid';
import type { Part } from '@/core/captions/compose';
import { countPart, loosePictures, movePart, partName, partsOf, partsRule } from '@/core/posts/parts';
import type { PostSheet } from '@/core/posts/sheet';
import type { PartsRule, RuleSheet } from '@/core/rulesheets/types';
import { problemOf } from '@/ui/api';
import { useSay } from '@/ui/messages';
import { CountOf } from './CountedText';
import { PictureCard } from './PictureCard';
import type { PostEditor, Texts } from './usePostEditor';
import { BothTexts } from './Words';
import { MarkedText } from '@/ui/MarkedText';
import { WordButton } from '@/ui/WordButton';
import { spansOf, type DraftedMark } from '@/core/posts/unread';

/** The slides, frames or further parts of a post in their order: dragged or moved by keyboard, each with its text and picture. */
export function Parts({
  editor,
  texts,
  sheet,
  rules,
  unread,
  disabled,
}: {
  editor: PostEditor;
  texts: Texts;
  sheet: PostSheet;
  rules: RuleSheet;
  /** Sentences of its draft that nobody has read. */
  unread: readonly DraftedMark[];
  disabled: boolean;
}) {
  const say = useSay();
  const sensors = useSensors(
    useSensor(PointerSensor, { activationConstraint: { distance: 4 } }),
    useSensor(KeyByKeySensor, { coordinateGetter: sortableKeyboardCoordinates }),
  );
  const rule = partsRule(rules, sheet.format);
  if (!rule) return null;
  const parts = partsOf(sheet, rules).map((part) => ({ ...part, text: texts[`part:${part.id}`] ?? part.text }));

  async function arrange(next: readonly Part[]) {
    const answer = await editor.change('PATCH', `/api/posts/${sheet.id}`, (version) => ({ version, parts: next }));
    const problem = problemOf(answer);
    if (problem) say({ text: problem, wrong: true });
  }
  const placeOf = (id: unknown) => parts.findIndex((part) => part.id === id);
  const called = (id: unknown) => partName(rule, placeOf(id));
  const announcements: Announcements = {
    onDragStart: ({ active }) => `Lifted ${called(active.id)}.`,
    onDragOver: ({ active, over }) =>
      over && over.id !== active.id ? `${called(active.id)} to the place of ${called(over.id)}.` : undefined,
    onDragEnd: ({ over }) => (over ? `Put down at the place of ${called(over.id)}.` : 'Put back.'),
    onDragCancel: () => 'Put back.',
  };

  return (
    <div className="words">
      <div className="words-label">
        <span>
          {rule.needs === 'text'
            ? 'Parts after the first'
            : `${rule.label.charAt(0).toUpperCase()}${rule.label.slice(1)}s`}
        </span>
        <span className="figures soft">
          {parts.length + (rule.needs === 'text' ? 1 : 0)} of at most {rule.most}
        </span>
      </div>
      <DndContext
        id={`parts-${sheet.id}`}
        sensors={sensors}
        collisionDetection={closestCenter}
        accessibility={{ announcements }}
        onDragEnd={({ active, over }) => {
          if (over && over.id !== active.id) void arrange(movePart(parts, String(active.id), placeOf(over.id)));
        }}
      >
        <SortableContext items={parts.map(({ id }) => id)} strategy={verticalListSortingStrategy} disabled={disabled}>
          <ol className="parts">
            {parts.map((part, index) => (
              <PartRow
                key={part.id}
                part={part}
                name={partName(rule, index)}
                rule={rule}
                editor={editor}
                sheet={sheet}
                rules={rules}
                unread={unread.filter(({ field }) => field === 'parts')}
                disabled={disabled}
                loose={loosePictures(parts, sheet.pictures)}
                onPicture={(pictureId) =>
                  void arrange(parts.map((other) => (other.id === part.id ? { ...other, pictureId } : other)))
                }
                onRemove={() => void arrange(parts.filter(({ id }) => id !== part.id))}
              />
            ))}
          </ol>
        </SortableContext>
      </DndContext>
      {!disabled && (
        <WordButton onClick={() => void arrange([...parts, { id: newId(), text: '', pictureId: null }])}>
          add a {rule.label}
        </WordButton>
      )}
    </div>
  );
}

function PartRow({
  part,
  name,
  rule,
  editor,
  sheet,
  rules,
  unread,
  disabled,
  loose,
  onPicture,
  onRemove,
}: {
  part: Part;
  name: string;
  rule: PartsRule;
  editor: PostEditor;
  sheet: PostSheet;
  rules: RuleSheet;
  unread: readonly DraftedMark[];
  disabled: boolean;
  /** Pictures that no part shows. */
  loose: readonly string[];
  onPicture: (pictureId: string | null) => void;
  onRemove: () => void;
}) {
  const { attributes, listeners, setNodeRef, setActivatorNodeRef, transform, transition, isDragging } = useSortable({
    id: part.id,
  });
  const picture = sheet.pictures.find(({ id }) => id === part.pictureId);
  const count = countPart(part.text, rules);
  const title = name.charAt(0).toUpperCase() + name.slice(1);
  return (
    <li
      ref={setNodeRef}
      className={`part${isDragging ? ' is-lifted' : ''}`}
      style={{ transform: CSS.Translate.toString(transform), transition }}
      data-part={part.id}
    >
      <div className="part-head">
        {!disabled && (
          <button
            type="button"
            ref={setActivatorNodeRef}
            className="part-grip"
            {...attributes}
            {...listeners}
            aria-label={`Move ${name}`}
          >
            <GripVertical size={14} aria-hidden="true" />
          </button>
        )}
        <b dir="auto">{title}</b>
        <CountOf count={count} limit={rule.limit} />
        {!disabled && picture === undefined && <WordButton onClick={onRemove}>Remove</WordButton>}
      </div>
      <div className="part-body">
        {picture && <PictureCard picture={picture} editor={editor} sheet={sheet} rules={rules} disabled={disabled} />}
        <MarkedText
          label={`Text of ${name}`}
          field={`part:${part.id}`}
          value={part.text}
          disabled={disabled}
          placeholder={rule.needs === 'text' ? 'Goes on …' : `Words on this ${rule.label}`}
          foldAt={null}
          overAt={null}
          isOver={count > rule.limit}
          unread={spansOf(part.text, unread)}
          onType={(text) => editor.type(`part:${part.id}`, text)}
        />
      </div>
      {rule.needs === 'text' && !disabled && (loose.length > 0 || picture) && (
        <label className="part-picture">
          picture
          <select
            value={part.pictureId ?? ''}
            onChange={(event) => onPicture(event.target.value === '' ? null : event.target.value)}
          >
            <option value="">none</option>
            {sheet.pictures
              .filter(({ id }) => id === part.pictureId || loose.includes(id))
              .map(({ id, fileName }) => (
                <option key={id} value={id}>
                  {fileName}
                </option>
              ))}
          </select>
        </label>
      )}
      <BothTexts editor={editor} field={`part:${part.id}`} />
    </li>
  );
}
