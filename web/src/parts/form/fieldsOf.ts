import type { ReactNode } from "react";
import type { FieldValues } from "react-hook-form";
import {
  Amount,
  One,
  Several,
  Text,
  Tick,
  YesOrNo,
  type AmountProps,
  type ChoiceProps,
  type SeveralProps,
  type TextProps,
  type TickProps,
  type YesNoProps,
} from "./Fields";

interface Fields<T extends FieldValues> {
  /** A line of words, or several. */
  Text: (props: TextProps<T>) => ReactNode;
  /** A number, with its unit. */
  Amount: (props: AmountProps<T>) => ReactNode;
  /** One of a few words. */
  One: <V extends string>(props: ChoiceProps<T, V>) => ReactNode;
  /** None, one or several of a few words. */
  Several: (props: SeveralProps<T>) => ReactNode;
  /** Yes, no, or nobody has looked. */
  YesOrNo: (props: YesNoProps<T>) => ReactNode;
  /** Yes or no. */
  Tick: (props: TickProps<T>) => ReactNode;
}

/** The fields of a form with these values: a field that the values do not have, or of another kind, does not compile. */
export const fieldsOf = <T extends FieldValues>(): Fields<T> => ({ Text, Amount, One, Several, YesOrNo, Tick });
