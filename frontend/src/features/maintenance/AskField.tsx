import type { Ask } from "../../api/types";
import { fieldsOf } from "../../forms/kit";

export interface ProcedureTyped {
  id: string;
  step: number;
  values: Record<string, string>;
  note: string;
}
const { Amount, Choice } = fieldsOf<ProcedureTyped>();

/** A value that a step takes in: one of several, or typed with or without its unit. */
export function AskField({ ask }: { ask: Ask }) {
  const name = `values.${ask.name}` as const;
  if (ask.choices.length > 0) {
    const options = ask.choices.map((choice) => ({ value: choice, label: choice }));
    return <Choice name={name} label={ask.label} options={options} />;
  }
  return <Amount name={name} label={ask.unit === "" ? ask.label : `${ask.label}, ${ask.unit}`} />;
}
