'use client';

import { useState } from 'react';
import Alert from 'react-bootstrap/Alert';
import Button from 'react-bootstrap/Button';
import { call, problemOf } from '@/ui/api';

/** Asks who one is, and goes on to where one wanted to go. */
export function ChoosePerson({
  people,
  brandName,
  to,
}: {
  people: readonly { id: string; name: string; role: string }[];
  brandName: string | null;
  to: string;
}) {
  const [problem, setProblem] = useState<string | null>(null);

  async function choose(personId: string) {
    const answer = await call('POST', '/api/who', { personId });
    setProblem(problemOf(answer));
    if (answer.kind === 'done') location.assign(to);
  }

  return (
    <main className="place-body who-page">
      <h1>Who are you?</h1>
      <p className="soft">
        {brandName ? `These people work for ${brandName}.` : 'These people work here.'} Choose one: in the demo nobody
        has a password.
      </p>
      {problem && <Alert variant="danger">{problem}</Alert>}
      {people.length === 0 && <p>Nobody works here yet.</p>}
      <ul className="who-list">
        {people.map(({ id, name, role }) => (
          <li key={id}>
            <Button variant="outline-primary" onClick={() => void choose(id)}>
              {name} <span className="soft">{role}</span>
            </Button>
          </li>
        ))}
      </ul>
    </main>
  );
}
