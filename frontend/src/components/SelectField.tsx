import { Field, NativeSelect } from "@chakra-ui/react";
import type { Option } from "./Pick";

interface SelectFieldProps {
  label: string;
  value: string;
  options: readonly Option<string>[];
  onPick: (value: string) => void;
  problem?: string | null | undefined;
  /** It is plain from what stands around; the name is there for who listens. */
  labelHidden?: boolean;
}

export function SelectField({
  label,
  value,
  options,
  onPick,
  problem,
  labelHidden = false,
}: SelectFieldProps) {
  return (
    <Field.Root invalid={Boolean(problem)}>
      <Field.Label fontSize="note" color="soft" fontWeight="500" srOnly={labelHidden}>
        {label}
      </Field.Label>
      <NativeSelect.Root>
        <NativeSelect.Field
          minH="44px"
          bg="card"
          border="1.5px solid"
          borderColor="control"
          borderRadius="10px"
          fontSize="body"
          value={value}
          onChange={(event) => onPick(event.target.value)}
        >
          {options.map((option) => (
            <option key={option.value} value={option.value}>
              {option.label}
            </option>
          ))}
        </NativeSelect.Field>
        <NativeSelect.Indicator />
      </NativeSelect.Root>
      {problem && (
        <Field.ErrorText color="accent" fontSize="note" fontWeight="600">
          {problem}
        </Field.ErrorText>
      )}
    </Field.Root>
  );
}
