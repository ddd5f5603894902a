'use client';

import Button from 'react-bootstrap/Button';
import Form from 'react-bootstrap/Form';
import { useSay } from '@/ui/messages';
import { Field } from '@/ui/Field';
import { useShell } from '@/ui/shell';
import { WordButton } from '@/ui/WordButton';
import type { ShownService } from '@/usecases/writing/service';
import { useSetting } from '../useSetting';
import { useSettingForm } from '../useSettingForm';
import { Problem } from '../Problem';

/** Allows a service of the team's own to write drafts, or switches it off. */
export function WritingSettings({ service, version }: { service: ShownService | null; version: number }) {
  const { brand } = useShell();
  const say = useSay();
  const kept = { address: service?.address ?? '', key: '' };
  const { register, handleSubmit, save, refusalOf, problem, reset } = useSettingForm(kept, version);
  const off = useSetting(version);

  const submit = handleSubmit(({ address, key }) =>
    save(
      '/api/settings/writing',
      { brandId: brand.id, address, key: key === '' && service?.hasKey ? null : key },
      () => {
        reset({ address, key: '' });
        say({ text: 'Saved. Fan-outs offer it from now on.' });
      },
    ),
  );

  async function switchOff() {
    const answer = await off.save('DELETE', '/api/settings/writing', { brandId: brand.id });
    if (answer.kind !== 'done') return;
    reset({ address: '', key: '' });
    say({ text: 'Switched off. Nothing is sent any more, and what it wrote for drafts is gone.' });
  }

  return (
    <>
      <h2>Writing service</h2>
      <p>
        Bimlo drafts posts from a piece’s own sentences. If your team runs a service that writes texts, Bimlo can ask it
        for those of a fan-out: it shows what is sent first, holds each answer to the rules of its channel, and marks it
        until somebody has read it. {service ? '' : 'None is allowed: nothing leaves this Bimlo.'}
      </p>
      <Form onSubmit={(event) => void submit(event)} noValidate>
        <Field
          id="writing-address"
          label="Address"
          hint="The one address that is asked, also one inside your own network. It is not left for another."
          refusal={refusalOf('address')}
          className="mb-3"
        >
          <Form.Control type="url" inputMode="url" placeholder="https://" {...register('address')} />
        </Field>
        <Field
          id="writing-key"
          label="Key (optional)"
          hint={
            service?.hasKey
              ? 'A key is kept on the server. Type another to replace it. With another address, it is let go.'
              : 'Sent to that address with each request, and shown to nobody.'
          }
          refusal={refusalOf('key')}
          className="mb-3"
        >
          <Form.Control type="password" autoComplete="off" {...register('key')} />
        </Field>
        <div className="d-flex-row">
          <Button type="submit">{service ? 'Save' : 'Allow this service'}</Button>
          {service && <WordButton onClick={() => void switchOff()}>Switch it off</WordButton>}
        </div>
        {problem()}
      </Form>
      <Problem of={off} onTheirs={() => reset(kept)} />
    </>
  );
}
