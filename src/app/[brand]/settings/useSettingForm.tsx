'use client';

import { useForm, type DefaultValues, type FieldValues, type Path } from 'react-hook-form';
import type { Refusal } from '@/core/refusal';
import { FieldRefusal } from '@/ui/FieldRefusal';
import { useUnsaved } from '@/ui/LeaveGuard';
import { useAfterUndo } from '@/ui/useFromServer';
import { Problem } from './Problem';
import { useSetting } from './useSetting';

/**
 * A form over a setting. A refusal that names one of its fields stands beside that field, which takes the focus; any other
 * stands at the end of the form.
 *
 * @param kept what stands now, a value for every field
 * @param version of the setting; 0 for one that is new
 */
export function useSettingForm<T extends FieldValues>(kept: T, version: number) {
  const form = useForm<T>({ defaultValues: kept as DefaultValues<T> });
  const setting = useSetting(version);
  const { errors, isDirty } = form.formState;
  useUnsaved(isDirty);
  useAfterUndo(kept, (now) => form.reset(now));

  /** Saves what was typed; what came of it is told only when it was done. */
  async function save<A>(path: string, body: object, onDone: (value: A) => void): Promise<void> {
    form.clearErrors();
    const answer = await setting.save<A>('POST', path, body);
    if (answer.kind === 'refused') showAt(answer.refusal);
    if (answer.kind !== 'done') return;
    // What was typed is what stands now.
    form.reset(form.getValues());
    onDone(answer.value);
  }

  const messageOf = (field: Path<T>) => errors[field]?.message as string | undefined;

  function showAt({ field, code, message }: Refusal): void {
    if (field === undefined || !(field in kept)) return;
    form.setError(field as Path<T>, { type: code, message }, { shouldFocus: true });
  }

  const shown = new Set<string>();
  return {
    ...form,
    save,
    /** Why one field was refused, to stand beside it; undefined where it was not. */
    refusalOf: (field: Path<T>) => {
      shown.add(field);
      return messageOf(field);
    },
    /** Why the rest was not saved: asked for after the fields that show their own. */
    problem: () => {
      const refused = Object.keys(errors);
      if (refused.length === 0) return <Problem of={setting} onTheirs={() => form.reset(kept)} />;
      return refused
        .filter((field) => !shown.has(field))
        .map((field) => <FieldRefusal key={field}>{messageOf(field as Path<T>)}</FieldRefusal>);
    },
    hasProblem: setting.problem !== null,
  };
}
