// @vitest-environment jsdom
import { renderToString } from 'react-dom/server';
import { hydrateRoot } from 'react-dom/client';
import { act } from 'react';
import { expect, it } from 'vitest';
import { WhenTakenOver } from './WhenTakenOver';

it('lets nothing be ticked before the page is taken over', async () => {
  const page = (
    <WhenTakenOver>
      <input type="checkbox" aria-label="Pithline" />
    </WhenTakenOver>
  );
  const place = document.createElement('div');
  document.body.append(place);
  place.innerHTML = renderToString(page);
  const tick = place.querySelector('input')!;
  tick.click();
  expect([tick.checked, tick.matches(':disabled')]).toEqual([false, true]);
  await act(async () => hydrateRoot(place, page));
  tick.click();
  expect(tick.checked).toBe(true);
});
