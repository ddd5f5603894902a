'use client';

import Picker, { EmojiStyle, Theme } from 'emoji-picker-react';

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
        previewConfig={{ showPreview: false }}
      />
    </div>
  );
}
