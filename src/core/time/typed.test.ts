import { expect, it } from 'vitest';
import { readTypedTime } from './typed';

it.each([
  ['14:30', '14:30'],
  ['1430', '14:30'],
  ['905', '09:05'],
  ['9', '09:00'],
  [' 9.05 ', '09:05'],
  ['9h05', '09:05'],
  ['2:15 pm', '14:15'],
  ['12am', '00:00'],
  ['12 pm', '12:00'],
  ['0:00', '00:00'],
  ['24:00', null],
  ['13pm', null],
  ['0am', null],
  ['9:5', null],
  ['12:60', null],
  ['noon', null],
  ['', null],
])('reads %s as %s', (typed, time) => expect(readTypedTime(typed)).toBe(time));
