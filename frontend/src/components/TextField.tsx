import { Field, Input, type InputProps } from "@chakra-ui/react";
import type { Ref } from "react";

interface TextFieldProps extends Omit<InputProps, "onChange" | "ref"> {
  label: string;
  help?: string | undefined;
  problem?: string | null | undefined;
  /** The name stands beside the field already; it is there for who listens. */
  labelHidden?: boolean;
  /** What is wrong stands elsewhere, beside the way to mend it. */
  invalid?: boolean;
  onText: (text: string) => void;
  ref?: Ref<HTMLInputElement>;
}

/** A labeled input; what is wrong stands right under it, in words, and what was typed stays. */
export function TextField({
  label,
  help,
  problem,
  labelHidden = false,
  invalid = false,
  onText,
  ...input
}: TextFieldProps) {
  return (
    <Field.Root invalid={Boolean(problem) || invalid}>
      <Field.Label fontSize="note" color="soft" fontWeight="500" srOnly={labelHidden}>
        {label}
      </Field.Label>
      <Input
        minH="44px"
        bg="card"
        border="1.5px solid"
        borderColor="control"
        borderRadius="10px"
        fontSize="lead"
        autoComplete="off"
        onChange={(event) => onText(event.target.value)}
        {...input}
      />
      {problem ? (
        <Field.ErrorText color="accent" fontSize="note" fontWeight="600">
          {problem}
        </Field.ErrorText>
      ) : (
        help && (
          <Field.HelperText color="soft" fontSize="note">
            {help}
          </Field.HelperText>
        )
      )}
    </Field.Root>
  );
}
