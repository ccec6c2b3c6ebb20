import './messages.ts';
import { valibotResolver } from '@hookform/resolvers/valibot';
import { type FormEvent, useEffect, useState } from 'react';
import {
  type DefaultValues,
  type FieldPath,
  type FieldValues,
  type UseFormReturn,
  useForm,
} from 'react-hook-form';
import type * as v from 'valibot';
import { sayFailure } from '../api/client.ts';
import { forgetDraft, keepDraft, keptDraft } from './kept-draft.ts';

interface SaveFormOptions<In extends FieldValues, Out> {
  /** What may be saved: the schema by which the server reads it. */
  readonly schema: v.GenericSchema<In, Out>;
  readonly defaults: NoInfer<In> & DefaultValues<In>;
  /** Saves what was said; what it throws is told, and what was typed stays. */
  readonly save: (values: Out) => Promise<void> | void;
  /** The field at which a refusal of the server is told; below the form without one. */
  readonly refusedAt?: FieldPath<In>;
  /** The name under which what is typed outlives a reload. */
  readonly keepAs?: string;
  /** What is never kept: passwords. */
  readonly neverKept?: readonly FieldPath<In>[];
}

export interface SaveForm<In extends FieldValues, Out = unknown> {
  readonly form: UseFormReturn<In, unknown, Out>;
  readonly submit: (event?: FormEvent) => void;
  /** Why it could not be saved, where that is of no single field. */
  readonly fault: string | null;
  readonly isBusy: boolean;
}

/**
 * A form that saves through a schema of the API: faults are told at their fields, the first of them gets the focus, and
 * what was typed stays through a failed save and, where it has a name, through a reload.
 */
export function useSaveForm<In extends FieldValues, Out>({
  schema,
  defaults,
  save,
  refusedAt,
  keepAs,
  neverKept = [],
}: SaveFormOptions<In, Out>): SaveForm<In, Out> {
  const [before] = useState(defaults);
  const [fault, setFault] = useState<string | null>(null);
  const form = useForm<In, unknown, Out>({
    resolver: valibotResolver(schema),
    // All faults at once: what two fields say together is told as well where a third one is wrong.
    criteriaMode: 'all',
    defaultValues: { ...before, ...(keepAs ? keptDraft(keepAs, before) : null) },
  });
  useEffect(() => {
    if (!keepAs) return;
    return form.subscribe({
      formState: { values: true },
      callback: ({ values }) => {
        const kept = Object.entries(values).filter(([name]) => !neverKept.some((never) => never === name));
        keepDraft(keepAs, before, Object.fromEntries(kept));
      },
    });
  }, [form, keepAs, before, neverKept]);
  const submit = form.handleSubmit(async (values) => {
    setFault(null);
    try {
      await save(values);
      if (keepAs) forgetDraft(keepAs);
    } catch (error) {
      if (refusedAt) form.setError(refusedAt, { message: sayFailure(error) }, { shouldFocus: true });
      else setFault(sayFailure(error));
    }
  });
  return {
    form,
    submit: (event) => void submit(event),
    fault,
    isBusy: form.formState.isSubmitting,
  };
}
