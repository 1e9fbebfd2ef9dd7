import { useEffect, useRef } from "react";
import {
  useForm,
  useWatch,
  type DefaultValues,
  type FieldValues,
  type Path,
  type UseFormReturn,
} from "react-hook-form";
import { readKept, writeKept } from "./kept";

export interface KeptForm<T extends FieldValues> {
  form: UseFormReturn<T>;
  /** Something is typed that is not recorded. */
  changed: boolean;
  /** It is recorded: nothing is kept any more. */
  saved: () => void;
  /** Puts the form back to what is recorded, and forgets what was kept. */
  discard: () => void;
}

const same = (a: unknown, b: unknown) => JSON.stringify(a) === JSON.stringify(b);

/** The fields that differ from what is recorded. */
function changes<T extends FieldValues>(values: Partial<T>, recorded: T): Partial<T> | null {
  const differ = Object.entries(values).filter(([field, value]) => !same(value, recorded[field]));
  return differ.length === 0 ? null : (Object.fromEntries(differ) as Partial<T>);
}

/** Of what was kept, the fields that the form still has, with values of the kind that they had. */
function fitting<T extends FieldValues>(kept: unknown, recorded: T): Partial<T> {
  if (typeof kept !== "object" || kept === null) return {};
  const fit = ([field, value]: [string, unknown]) => field in recorded && typeof value === typeof recorded[field];
  return Object.fromEntries(Object.entries(kept).filter(fit)) as Partial<T>;
}

/**
 * A form whose changed fields are kept on this device, under `key`, until they are recorded or discarded. What others change
 * meanwhile in the other fields is seen when it is opened again.
 */
export function useKeptForm<T extends FieldValues>(key: string, recorded: T): KeptForm<T> {
  const form = useForm<T>({
    defaultValues: { ...recorded, ...fitting(readKept(key), recorded) } as DefaultValues<T>,
  });
  const values = useWatch({ control: form.control });
  const differ = changes(values as Partial<T>, recorded);
  const now = JSON.stringify(values);
  const saved = useRef<string | null>(null);
  useEffect(() => {
    // What was just recorded is not kept, also while the screen still shows the state before it.
    if (saved.current !== now) writeKept(key, differ);
  });
  return {
    form,
    changed: differ !== null,
    saved: () => {
      saved.current = JSON.stringify(form.getValues());
      writeKept(key, null);
    },
    discard: () => {
      for (const [field, value] of Object.entries(recorded)) form.setValue(field as Path<T>, value as T[Path<T>]);
      writeKept(key, null);
    },
  };
}
