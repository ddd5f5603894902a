'use client';

import { FirstChannel } from './FirstChannel';
import { CallSign } from './CallSign';
import { useShell } from './shell';

/** Ticks for the brand's channels. */
export function ChannelChoice({
  legend,
  chosen,
  onChange,
}: {
  legend: string;
  chosen: readonly string[];
  onChange: (channelIds: string[]) => void;
}) {
  const { channels } = useShell();
  return (
    <fieldset>
      <legend className="form-label">{legend}</legend>
      <FirstChannel whatFor="Posts are made for channels." />
      <div className="channel-choice">
        {channels.map((channel) => (
          <label key={channel.id}>
            <input
              type="checkbox"
              checked={chosen.includes(channel.id)}
              onChange={(event) =>
                onChange(
                  event.target.checked
                    ? [...chosen, channel.id]
                    : chosen.filter((channelId) => channelId !== channel.id),
                )
              }
            />
            <CallSign sign={channel.callSign} color={channel.color} />
            {channel.name}
          </label>
        ))}
      </div>
    </fieldset>
  );
}
