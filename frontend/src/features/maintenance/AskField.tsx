import type { Ask } from "../../api/types";
import { PickOne } from "../../components/Pick";
import { TextField } from "../../components/TextField";

interface AskFieldProps {
  ask: Ask;
  value: string;
  problem?: string | null;
  onValue: (text: string) => void;
}

/** A value that a step takes in: one of several, or typed with or without its unit. */
export function AskField({ ask, value, problem = null, onValue }: AskFieldProps) {
  if (ask.choices.length > 0) {
    return (
      <PickOne
        label={ask.label}
        options={ask.choices.map((choice) => ({ value: choice, label: choice }))}
        value={value === "" ? null : value}
        onPick={onValue}
      />
    );
  }
  return (
    <TextField
      label={ask.unit === "" ? ask.label : `${ask.label}, ${ask.unit}`}
      inputMode="decimal"
      name={ask.name}
      value={value}
      problem={problem}
      onText={onValue}
    />
  );
}
