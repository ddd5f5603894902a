'use client';

import Picker, { Categories, EmojiStyle, Theme } from 'emoji-picker-react';

const LABELS = {
  searchPlaceholder: 'Find an emoji',
  searchLabel: 'Find an emoji by its name',
  searchClear: 'Clear',
  searchResultsNone: 'No matches.',
  searchResultsOne: '1 match. The arrow keys go to it.',
  searchResultsMany: '%n matches. The arrow keys go through them.',
  categoryNavigation: 'Kinds of emoji',
  loading: 'Loading …',
  loadingError: 'The emoji could not be loaded.',
  retryLoading: 'Try again',
  skinToneNeutral: 'skin: as it comes',
  skinToneLight: 'skin: light',
  skinToneMediumLight: 'skin: rather light',
  skinToneMedium: 'skin: medium',
  skinToneMediumDark: 'skin: rather dark',
  skinToneDark: 'skin: dark',
};

const KINDS = [
  { category: Categories.SUGGESTED, name: 'Used lately' },
  { category: Categories.SMILEYS_PEOPLE, name: 'Faces and people' },
  { category: Categories.ANIMALS_NATURE, name: 'Animals, plants, weather' },
  { category: Categories.FOOD_DRINK, name: 'Food and drink' },
  { category: Categories.TRAVEL_PLACES, name: 'Places and travel' },
  { category: Categories.ACTIVITIES, name: 'Sport and play' },
  { category: Categories.OBJECTS, name: 'Things' },
  { category: Categories.SYMBOLS, name: 'Signs' },
  { category: Categories.FLAGS, name: 'Flags' },
];

/** Emoji by name and kind. They are drawn with the font that ships, and come from no network. */
export function EmojiPicker({ onPick, onClose }: { onPick: (emoji: string) => void; onClose: () => void }) {
  return (
    <div
      className="emoji-picker"
      onKeyDown={(event) => {
        if (event.key !== 'Escape') return;
        event.stopPropagation();
        onClose();
      }}
    >
      <Picker
        onEmojiClick={({ emoji }) => onPick(emoji)}
        emojiStyle={EmojiStyle.NATIVE}
        theme={Theme.AUTO}
        width="100%"
        height={320}
        lazyLoadEmojis
        labels={LABELS}
        categories={KINDS}
        previewConfig={{ showPreview: false }}
      />
    </div>
  );
}
