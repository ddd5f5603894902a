import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { figureIn } from './figures';

describe('the figure of a text', () => {
  it.each([
    ['It cost £1.5 million to build.', '£1.5 million', null],
    ['At −25 °C the motor stops.', '−25 °C', null],
    ['At −25\u00a0°C the motor stops.', '−25\u00a0°C', null],
    ['Down to -25°C at night', '-25°C', null],
    ['Some 280,000 kilometres wide', '280,000', 'kilometres'],
    ['(60 windows) let it in', '60', 'windows'],
    ['It lost 12.5% of its heat', '12.5%', null],
    ['It lost 12,5 % of its heat', '12,5 %', null],
    ['3 Mio. Menschen', '3 Mio', null],
    ['1,2 Milliarden Euro', '1,2 Milliarden', null],
    ['20 000 visitors came', '20 000', 'visitors'],
    ['20\u202f000 visiteurs', '20\u202f000', 'visiteurs'],
    ['1.234.567,89 €', '1.234.567,89 €', null],
    ['$3bn in a year', '$3bn', null],
    ['Over 5 km of cable', '5 km', null],
    ['In 1984 they sold 300 tickets', '300', 'tickets'],
    ['120 people, in 2019', '120', 'people'],
    ['a speed of 30 km/h.', '30 km/h', null],
    ['Costs €4.50 a loaf', '€4.50', null],
    ['US$ 5 million for a roof', 'US$ 5 million', null],
    ['98 per cent of all', '98 per cent', null],
    ['98 percent of all', '98 percent', null],
    ['We baked 1,200 loaves on Saturday.', '1,200', 'loaves'],
    ['Only 40 loaves are left', '40', 'loaves'],
    ['Es kamen 300 Menschen', '300', 'Menschen'],
    ['Nach der Feier waren am Abend 300 Leute da', '300', 'Leute'],
    ['50.000 Menschen', '50.000', 'Menschen'],
    ['In Hamburg, 300 people came', '300', 'people'],
  ])('%s', (text, figure, counts) => expect(figureIn(text)).toEqual({ text: figure, counts }));

  it.each([
    'Founded in 1984.',
    'Call 020 7946 0018 today',
    'Call +44 20 7946 0018 today',
    'Call 0800-123456',
    'Doors at 14:30',
    'On 24.11.2026 we open',
    'On 24/11/2026 we open',
    'See page 47',
    'Room 101 is closed',
    'The 21st evening',
    'A 10-inch mirror',
    'Between 10–20 of them',
    'Version 2.0 is out',
    'Only 3 of them',
    'On 15 May we open',
    'May 15, 2026',
    'am 15. Mai 2026',
    'le 15 mai',
    'Sunday 12',
    'um 10 Uhr',
    '450 BC',
    'the 1990s',
    "the '90s",
    'Postcode 10115 Berlin',
    '12345 Springfield',
    '30 High Street',
    'Flat 12, 30 High Street',
    'A Boeing 747 lands',
    'Windows 11',
    'Season 3 Episode 12',
    'vol. 12',
    '§ 12',
    'Ages 8 to 12',
    '1.5 × 10^9',
    'No number at all',
    '',
  ])('is none in: %s', (text) => expect(figureIn(text)).toBeNull());

  it('stands in its text as it is, whatever was written', () =>
    fc.assert(
      fc.property(
        fc.array(
          fc.constantFrom('1', '20', '000', '£', '−', '.', ',', '%', ' ', 'million', 'km', '°C', '-', '2019', 'a'),
        ),
        (parts) => {
          const text = parts.join('');
          const figure = figureIn(text);
          if (figure) expect(text.replace(/[ \t\n]+/g, ' ')).toContain(figure.text);
        },
      ),
    ));
});
