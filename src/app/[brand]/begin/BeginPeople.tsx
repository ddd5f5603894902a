'use client';

import { useState } from 'react';
import Form from 'react-bootstrap/Form';
import { USUAL_WEEKDAYS } from '@/core/prep/workdays';
import { CRAFT_LABELS, CRAFTS, type Craft } from '@/core/prep/step';
import { ROLES, type Role } from '@/core/rights/may';
import { CHANNEL_COLOURS } from '@/core/brands/newChannel';
import { call } from '@/ui/api';
import { useShell } from '@/ui/shell';
import { WordButton } from '@/ui/WordButton';
import { BeginDeeds } from './BeginDeeds';
import { useSteps } from './useSteps';

interface NewPerson {
  key: number;
  name: string;
  role: Role;
  craft: Craft | '';
}

const ROLE_WORDS: Record<Role, string> = {
  manager: 'manager: does everything',
  maker: 'maker: writes and makes posts',
  reviewer: 'reviewer: signs off',
};

/** Further people of a brand, each with a role and what they can do. */
export function BeginPeople() {
  const { brand, people } = useShell();
  const { goOn, problem, isBusy } = useSteps('rhythm');
  const [rows, setRows] = useState<readonly NewPerson[]>([{ key: 0, name: '', role: 'maker', craft: '' }]);
  const change = (key: number, part: Partial<NewPerson>) =>
    setRows(rows.map((row) => (row.key === key ? { ...row, ...part } : row)));
  const named = rows.filter(({ name }) => name.trim() !== '');

  const saves = () =>
    named.map(({ name, role, craft }, at) => ({
      name: name.trim(),
      save: () =>
        call('POST', '/api/settings/people', {
          ...{ id: null, name: name.trim(), role, zone: brand.zone, crafts: craft === '' ? [] : [craft] },
          ...{ weekdays: USUAL_WEEKDAYS, minutesPerDay: 360, brandIds: [brand.id], daysOff: [] },
          color: CHANNEL_COLOURS[(people.length + at) % CHANNEL_COLOURS.length],
        }),
    }));

  return (
    <Form
      onSubmit={(event) => {
        event.preventDefault();
        void goOn(saves());
      }}
      noValidate
    >
      <p>Here already: {people.map(({ name }) => name).join(', ')}.</p>
      <ul className="begin-list">
        {rows.map(({ key, name, role, craft }, at) => (
          <li key={key} className="begin-fields">
            <Form.Control
              autoFocus
              dir="auto"
              aria-label={`Name of person ${at + 1}`}
              placeholder="Name"
              value={name}
              onChange={(event) => change(key, { name: event.target.value })}
            />
            <Form.Select
              aria-label={`Role of person ${at + 1}`}
              value={role}
              onChange={(event) => change(key, { role: event.target.value as Role })}
            >
              {ROLES.map((one) => (
                <option key={one} value={one}>
                  {ROLE_WORDS[one]}
                </option>
              ))}
            </Form.Select>
            <Form.Select
              aria-label={`Skill of person ${at + 1}`}
              value={craft}
              onChange={(event) => change(key, { craft: event.target.value as Craft | '' })}
            >
              <option value="">no skill named</option>
              {CRAFTS.map((one) => (
                <option key={one} value={one}>
                  {CRAFT_LABELS[one]}
                </option>
              ))}
            </Form.Select>
          </li>
        ))}
      </ul>
      <WordButton
        onClick={() =>
          setRows([...rows, { key: Math.max(...rows.map((row) => row.key)) + 1, name: '', role: 'maker', craft: '' }])
        }
      >
        Add another person
      </WordButton>
      <BeginDeeds
        label={
          named.length === 0
            ? 'Next: rhythm'
            : `Add ${named.length === 1 ? 'this person' : `these ${named.length} people`}`
        }
        next={named.length === 0 ? null : 'rhythm'}
        {...{ problem, isBusy }}
      />
    </Form>
  );
}
