import { useState, type ReactNode } from "react";
import { FormProvider, useWatch, type FieldValues } from "react-hook-form";
import { ErrorLine } from "./ErrorLine";
import { KeptNote } from "./KeptNote";
import type { KeptForm } from "./useKeptForm";

interface Props<T extends FieldValues> {
  kept: KeptForm<T>;
  onSave: (values: T) => Promise<unknown>;
  onSaved?: () => void;
  /** The fields, and where Save and the error line go. */
  children: (values: T, saving: boolean, error: ReactNode) => ReactNode;
}

/** A form that says when it was opened with something typed earlier, and shows why something could not be recorded. */
export function KeptFormBody<T extends FieldValues>({ kept, onSave, onSaved, children }: Props<T>) {
  const { form, changed, discard } = kept;
  const [fromBefore, setFromBefore] = useState(changed);
  const [error, setError] = useState<unknown>(null);
  const values = useWatch({ control: form.control }) as T;
  const submit = form.handleSubmit(async (typed) => {
    try {
      await onSave(typed);
      kept.saved();
      setError(null);
      onSaved?.();
    } catch (refused) {
      setError(refused);
    }
  });
  return (
    <FormProvider {...form}>
      <form onSubmit={(event) => void submit(event)} style={{ display: "contents" }}>
        <KeptNote
          kept={fromBefore && changed}
          onDiscard={() => {
            discard();
            setFromBefore(false);
          }}
        />
        {children(values, form.formState.isSubmitting, <ErrorLine error={error} />)}
      </form>
    </FormProvider>
  );
}
